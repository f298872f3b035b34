import { WornNowStep } from '@/features/visit/steps/wornNow/WornNowStep';
import { visitPage } from '../../visitPage';

export const metadata = { title: 'Fit' };
export default visitPage('wornNow', WornNowStep);
