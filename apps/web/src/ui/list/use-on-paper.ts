import { useEffect, useState } from 'react';
import { flushSync } from 'react-dom';

/** Whether the page is being printed: then all rows are drawn, not only those that would be seen. */
export function useOnPaper(): boolean {
  const [isOnPaper, setOnPaper] = useState(false);
  useEffect(() => {
    // What is not drawn when the event is over is not on the paper.
    const begin = (): void => flushSync(() => setOnPaper(true));
    const end = (): void => setOnPaper(false);
    window.addEventListener('beforeprint', begin);
    window.addEventListener('afterprint', end);
    return () => {
      window.removeEventListener('beforeprint', begin);
      window.removeEventListener('afterprint', end);
    };
  }, []);
  return isOnPaper;
}
