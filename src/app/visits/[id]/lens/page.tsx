import { LensStep } from '@/features/visit/steps/lens/LensStep';
import { visitPage } from '../../visitPage';

export const metadata = { title: 'Fit' };
export default visitPage('lens', LensStep);
