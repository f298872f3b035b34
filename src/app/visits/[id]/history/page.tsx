import { HistoryStep } from '@/features/visit/steps/history/HistoryStep';
import { visitPage } from '../../visitPage';

export const metadata = { title: 'Fit' };
export default visitPage('history', HistoryStep);
