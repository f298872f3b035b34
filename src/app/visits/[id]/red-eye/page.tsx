import { RedEyeStep } from '@/features/visit/steps/redEye/RedEyeStep';
import { visitPage } from '../../visitPage';

export const metadata = { title: 'Fit' };
export default visitPage('redEye', RedEyeStep);
