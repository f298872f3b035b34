import { AsLastTimeStep } from '@/features/visit/steps/asLastTime/AsLastTimeStep';
import { visitPage } from '../../visitPage';

export const metadata = { title: 'Fit' };
export default visitPage('asLastTime', AsLastTimeStep);
