import { useEffect, useRef, useState } from 'react';

/**
 * Opens what stands behind the hash of this page's address: no server on the way was told it. A link that is opened while another one's page
 * stands here takes its place.
 */
export function useLinkOfHash(): 'opening' | 'ended' | 'none' {
  const [state, setState] = useState<'opening' | 'ended' | 'none'>('opening');
  const asked = useRef('');
  useEffect(() => {
    const open = async (): Promise<void> => {
      const token = window.location.hash.slice(1);
      if (token === '') return setState('none');
      if (asked.current === token) return;
      asked.current = token;
      const answer = await fetch('/api/home', {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ token }),
      }).catch(() => null);
      if (!answer?.ok) return setState('ended');
      window.location.replace('/home');
    };
    const look = (): void => void open();
    look();
    window.addEventListener('hashchange', look);
    return () => window.removeEventListener('hashchange', look);
  }, []);
  return state;
}
