import { KindStep } from '@/features/visit/steps/kind/KindStep';
import { visitPage } from '../../visitPage';

export const metadata = { title: 'Fit' };
export default visitPage('kind', KindStep);
