'use client';
import failed from '@/i18n/messages/en/failed.messages.json';

/** A page that could not be made: what did not happen, what is safe, what to do. Its words need nothing filled in. */
export default function Failed({ reset }: { readonly reset: () => void }) {
  return (
    <main className="p-10 max-w-[560px]">
      <h1 className="power mb-3">{failed.title}</h1>
      <p className="mb-4">{failed.text}</p>
      <button type="button" className="btn btn-act" onClick={reset}>
        {failed.again}
      </button>
    </main>
  );
}
