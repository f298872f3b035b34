import { AftercareStep } from '@/features/visit/steps/aftercare/AftercareStep';
import { visitPage } from '../../visitPage';

export const metadata = { title: 'Fit' };
export default visitPage('aftercare', AftercareStep);
