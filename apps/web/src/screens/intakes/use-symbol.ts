import { useQuery } from '@tanstack/react-query';
import { toDataURL, toString } from 'qrcode';

/** Pixels of the symbol as a picture for print. */
const PRINTED = 1200;

/** Where an intake is reached, and that address as a QR symbol (ISO/IEC 18004), as addresses of images; undefined until they are made. */
export function useSymbol(word: string): { address: string; svg: string | undefined; png: string | undefined } {
  const address = `${window.location.origin}/in/${word}`;
  const { data } = useQuery({
    queryKey: ['intake-symbol', address],
    queryFn: async () => ({
      svg: `data:image/svg+xml,${encodeURIComponent(await toString(address, { type: 'svg', margin: 2 }))}`,
      png: await toDataURL(address, { width: PRINTED, margin: 2 }),
    }),
    enabled: word !== '',
    staleTime: Infinity,
  });
  return { address, svg: data?.svg, png: data?.png };
}
