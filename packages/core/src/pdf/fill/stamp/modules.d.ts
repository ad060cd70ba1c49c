/** The part of `qrcode` that computes without drawing; its types describe only the whole package. */
declare module 'qrcode/lib/core/qrcode.js' {
  const qrcode: {
    create(text: string, options: { errorCorrectionLevel: 'L' | 'M' | 'Q' | 'H' }): { modules: { size: number; data: Uint8Array } };
  };
  export default qrcode;
}
