import { cameraServer } from './server';

// Started by the demo: KEENFIT_CAMERA_PORT.
const port = Number(process.env.KEENFIT_CAMERA_PORT);
cameraServer().listen(port, '127.0.0.1', () => process.stdout.write(`camera ready on ${port}\n`));
process.on('SIGTERM', () => process.exit(0));
