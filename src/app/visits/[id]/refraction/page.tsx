import { RefractionStep } from '@/features/visit/steps/refraction/RefractionStep';
import { visitPage } from '../../visitPage';

export const metadata = { title: 'Fit' };
export default visitPage('refraction', RefractionStep);
