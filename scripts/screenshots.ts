// npm run screenshots: one current picture of each main view, from the demo data, at one fixed moment.
import { aftercarePictures } from './screenshots/aftercare';
import { coneCorneaPictures } from './screenshots/cornea';
import { dayPictures } from './screenshots/day';
import { eyeHealthPictures } from './screenshots/eyeHealth';
import { choosingPictures, onEyePictures } from './screenshots/fitting';
import { lessonPictures } from './screenshots/lesson';
import { nearVisionPictures } from './screenshots/nearVision';
import { redEyePictures } from './screenshots/redEye';
import { signIn, strike } from './screenshots/stage';
import { supplyPictures } from './screenshots/supply';

await signIn(/Asha/);
await dayPictures();
// One wearer from the first visit to the aftercare, then four others.
const visit = await choosingPictures();
await onEyePictures(visit);
await lessonPictures();
await supplyPictures(visit);
await aftercarePictures();
await coneCorneaPictures();
await eyeHealthPictures();
await redEyePictures();
await nearVisionPictures();
await strike();
