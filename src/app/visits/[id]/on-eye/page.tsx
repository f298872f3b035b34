import { OnEyeStep } from '@/features/visit/steps/onEye/OnEyeStep';
import { visitPage } from '../../visitPage';

export const metadata = { title: 'Fit' };
export default visitPage('onEye', OnEyeStep);
