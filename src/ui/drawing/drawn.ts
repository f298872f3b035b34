import { f, makeKit, type KitOptions } from './ink';
import { SCENE_HEIGHT, SCENE_WIDTH, type Scene, type SceneDetail } from './scenes/poses';

/** The part of a scene that is shown: x, y, width, height in its 320 × 200. */
export type Crop = readonly [number, number, number, number];
export const WHOLE_SCENE: Crop = [0, 0, SCENE_WIDTH, SCENE_HEIGHT];

export interface SceneOptions extends KitOptions {
  readonly detail?: SceneDetail;
  readonly crop?: Crop;
  /** What it shows, for whoever cannot see it. */
  readonly describes: string;
}

const attribute = (words: string): string => words.replaceAll('&', '&amp;').replaceAll('"', '&quot;').replaceAll('<', '&lt;');

/**
 * A scene as a picture by itself.
 * @returns SVG; the same for the same options, on the server and in the browser
 */
export function drawn(scene: Scene, options: SceneOptions): string {
  const k = makeKit(options);
  const [x, y, width, height] = options.crop ?? WHOLE_SCENE;
  const clip = k.name();
  return (
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="${x} ${y} ${width} ${height}" role="img" aria-label="${attribute(options.describes)}" class="scene">` +
    `<defs><clipPath id="${clip}"><rect x="${x}" y="${y}" width="${width}" height="${height}"/></clipPath></defs><rect x="${x}" y="${y}" width="${width}" height="${height}" fill="#FCF9F2"/>` +
    `<g clip-path="url(#${clip})">${scene(k, options.detail ?? {})}</g>` +
    `<rect x="${f(x + 0.7)}" y="${f(y + 0.7)}" width="${f(width - 1.4)}" height="${f(height - 1.4)}" fill="none" stroke="#84765F" stroke-width="1.4"/></svg>`
  );
}
