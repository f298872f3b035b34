import { SupplyStep } from '@/features/visit/steps/supply/SupplyStep';
import { visitPage } from '../../visitPage';

export const metadata = { title: 'Fit' };
export default visitPage('supply', SupplyStep);
