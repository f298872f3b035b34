import { LessonStep } from '@/features/visit/steps/lesson/LessonStep';
import { visitPage } from '../../visitPage';

export const metadata = { title: 'Fit' };
export default visitPage('lesson', LessonStep);
