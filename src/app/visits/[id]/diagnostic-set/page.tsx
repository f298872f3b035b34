import { DiagnosticSetStep } from '@/features/visit/steps/diagnosticSet/DiagnosticSetStep';
import { visitPage } from '../../visitPage';

export const metadata = { title: 'Fit' };
export default visitPage('diagnosticSet', DiagnosticSetStep);
