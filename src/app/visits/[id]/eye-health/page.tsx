import { EyeHealthStep } from '@/features/visit/steps/eyeHealth/EyeHealthStep';
import { visitPage } from '../../visitPage';

export const metadata = { title: 'Fit' };
export default visitPage('eyeHealth', EyeHealthStep);
