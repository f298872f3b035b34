import { createServer, type Server, type ServerResponse } from 'node:http';
import sharp from 'sharp';
import { MARK_LAYOUTS, type Eye, type MarkLayout } from '../../core';
import { chanceFrom } from '../../lib/chance';
import { photograph } from './draw';
import { CAMERA_RANGES } from './ranges';
import { sceneOf, type Scene } from './scene';

/** How far the lens turns between two blinks, degrees. */
const BLINK_TURN = 1.5;

/** The eye in front of the camera: the same from one picture to the next, with the lens as each blink leaves it. */
export function sceneBefore(eye: Eye, layout: MarkLayout, spacing: number, seed: number, shot: number): Scene {
  const first = sceneOf(CAMERA_RANGES.easy, layout, seed);
  const blinks = chanceFrom(seed + 1 + shot);
  return {
    ...first,
    eye,
    seed: seed + shot,
    mirrored: false,
    roll: 0,
    lens: { ...first.lens, layout, spacing: spacing || first.lens.spacing, rotationLeft: first.lens.rotationLeft + blinks.between(-BLINK_TURN, BLINK_TURN) },
  };
}

/** Failures on demand. `down`: 503. `nonsense`: what comes is no picture. */
export type CameraFault = 'none' | 'down' | 'nonsense';

const refuse = (response: ServerResponse, status: number): void => {
  response.writeHead(status, { 'content-type': 'text/plain' });
  response.end();
};

/**
 * A stand-in for a slit-lamp camera: takes a picture when it is asked to, `GET /picture?eye=right&marks=six&spacing=0&shot=0`. A real camera sees what is in
 * front of it; this one is told. The eye is another one each time a first shot is asked for.
 */
export function cameraServer(): Server {
  let fault: CameraFault = 'none';
  let seed = 100;
  const handle = async (url: URL, method: string, response: ServerResponse): Promise<void> => {
    const { searchParams: asked, pathname } = url;
    if (method === 'PUT' && pathname === '/fault') {
      fault = asked.get('is') === 'down' ? 'down' : asked.get('is') === 'nonsense' ? 'nonsense' : 'none';
      return refuse(response, 204);
    }
    const layout = MARK_LAYOUTS.find((l) => l === asked.get('marks'));
    const [eye, shot, spacing] = [asked.get('eye'), Number(asked.get('shot')), Number(asked.get('spacing'))];
    if (pathname !== '/picture' || layout === undefined || (eye !== 'right' && eye !== 'left') || !Number.isInteger(shot) || !Number.isFinite(spacing))
      return refuse(response, 400);
    if (fault === 'down') return refuse(response, 503);
    if (shot === 0) seed += 10;
    const photo = photograph(sceneBefore(eye, layout, spacing, seed, shot));
    const file =
      fault === 'nonsense'
        ? Buffer.from('no picture')
        : await sharp(photo.rgb, { raw: { width: photo.width, height: photo.height, channels: 3 } })
            .jpeg({ quality: 92 })
            .toBuffer();
    response.writeHead(200, { 'content-type': 'image/jpeg', 'content-length': String(file.byteLength) });
    response.end(file);
  };
  return createServer((request, response) => {
    handle(new URL(request.url ?? '/', 'http://camera'), request.method ?? 'GET', response).catch(() => refuse(response, 500));
  });
}
