import { readNews, type News } from '../core/record/news';

/** What a page says to the stream it shares with the browser's other pages. */
export type ToNews = 'hear' | 'bye';
/** What it hears: a piece of news, or that it has to look for itself. */
export type FromNews = News | 'look';

/** A refused stream (nobody is signed in, say) is tried again after this long, ms. */
const TRY_AGAIN_MS = 15_000;

const pages = new Set<MessagePort>();
let stream: EventSource | null = null;
let again: ReturnType<typeof setTimeout> | null = null;

const tell = (what: FromNews): void => pages.forEach((page) => page.postMessage(what));

function close(): void {
  stream?.close();
  stream = null;
  if (again !== null) clearTimeout(again);
  again = null;
}

function open(): void {
  if (stream !== null || pages.size === 0) return;
  const opened = new EventSource('/api/news');
  stream = opened;
  // Something may have been missed while there was no stream.
  opened.addEventListener('open', () => tell('look'));
  opened.addEventListener('look', () => tell('look'));
  opened.addEventListener('message', (event: MessageEvent<string>) => {
    const news = readNews(event.data);
    if (news) tell(news);
  });
  opened.addEventListener('error', () => {
    // The browser comes back to a stream that broke; one that was refused it gives up.
    if (opened.readyState !== EventSource.CLOSED || stream !== opened) return;
    close();
    again = setTimeout(open, TRY_AGAIN_MS);
  });
}

(globalThis as unknown as { onconnect: (event: MessageEvent) => void }).onconnect = ({ ports }) => {
  const [page] = ports;
  if (!page) return;
  page.addEventListener('message', ({ data }: MessageEvent<ToNews>) => {
    if (data === 'bye') {
      pages.delete(page);
      if (pages.size === 0) close();
      return;
    }
    pages.add(page);
    if (stream?.readyState === EventSource.OPEN) page.postMessage('look');
    if (again !== null) close();
    open();
  });
  page.start();
};
