import { drawn, type SceneOptions } from './drawn';
import * as care from './scenes/care';
import * as hands from './scenes/hands';
import * as lamp from './scenes/lamp';
import * as off from './scenes/off';
import * as on from './scenes/on';
import type { Scene } from './scenes/poses';
import * as trouble from './scenes/trouble';
import * as wayOut from './scenes/wayOut';

/** Every scene of lesson, care and lamp. */
const SCENES = { ...hands, ...wayOut, ...on, ...off, ...care, ...trouble, ...lamp } satisfies Readonly<Record<string, Scene>>;
export type SceneName = keyof typeof SCENES;
export const SCENE_NAMES = Object.keys(SCENES) as readonly SceneName[];

/**
 * A scene as a picture by itself, by its name. Whoever shows a few that are known beforehand takes them to `drawn` and leaves the others.
 * @returns SVG; the same for the same options, on the server and in the browser
 */
export const drawScene = (name: SceneName, options: SceneOptions): string => drawn(SCENES[name], options);
