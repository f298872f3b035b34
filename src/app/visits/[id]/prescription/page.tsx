import { PrescriptionStep } from '@/features/visit/steps/prescription/PrescriptionStep';
import { visitPage } from '../../visitPage';

export const metadata = { title: 'Fit' };
export default visitPage('prescription', PrescriptionStep);
