'use client';
import { useId, useMemo } from 'react';
import { useTranslations } from 'use-intl';
import type { Eye } from '@/core';
import type { Crop } from '@/ui/drawing/drawn';
import { drawScene, type SceneName } from '@/ui/drawing/scene';
import { SKIN_TONES, type KitOptions } from '@/ui/drawing/ink';
import type { SceneDetail } from '@/ui/drawing/scenes/poses';

/** How a wearer's drawings are drawn. */
export interface DrawnFor {
  readonly hand: Eye;
  readonly eye: Eye;
  readonly skinTone: number;
  readonly view: 'facing' | 'mirror';
}

/** One drawing of the lesson, with what it shows in words for whoever cannot see it. */
export function Drawing({
  scene,
  of,
  detail,
  crop,
  ink,
}: {
  readonly scene: SceneName;
  readonly of: DrawnFor;
  readonly detail?: SceneDetail;
  readonly crop?: Crop;
  readonly ink?: number;
}) {
  const t = useTranslations('scenes');
  const words = useTranslations('drawing');
  const id = useId();
  const describes = t(`${scene}.alt`);
  const { hand, eye, skinTone, view } = of;
  const drawn = useMemo(() => {
    const kit: KitOptions = {
      ...{ hand, eye, view },
      tone: SKIN_TONES.find((tone) => tone === skinTone) ?? 3,
      iris: skinTone > 4 ? 'dark' : 'hazel',
      ...(ink === undefined ? {} : { ink }),
      prefix: `scene-${id.replaceAll(/[^\w-]/g, '')}-`,
      words: {
        right: words('right'),
        left: words('left'),
        soap: words('soap'),
        basket: words('basket'),
        disc: words('disc'),
        call: [words('call1'), words('call2')],
      },
    };
    return drawScene(scene, { ...kit, ...(detail ? { detail } : {}), ...(crop ? { crop } : {}), describes });
  }, [scene, hand, eye, view, skinTone, detail, crop, ink, id, words, describes]);
  // Made by the drawing kit alone, its words escaped.
  return <div className="drawing" dangerouslySetInnerHTML={{ __html: drawn }} />;
}
