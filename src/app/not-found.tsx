import { PlainPage } from './PlainPage';

export default function NotFound() {
  return <PlainPage says="notFoundPage" />;
}
