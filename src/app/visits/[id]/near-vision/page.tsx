import { NearVisionStep } from '@/features/visit/steps/nearVision/NearVisionStep';
import { visitPage } from '../../visitPage';

export const metadata = { title: 'Fit' };
export default visitPage('nearVision', NearVisionStep);
