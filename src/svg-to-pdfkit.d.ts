declare module 'svg-to-pdfkit' {
  /** Draws an SVG picture into a PDFKit document at a place in points. */
  export default function svgToPdf(
    doc: PDFKit.PDFDocument,
    svg: string,
    x: number,
    y: number,
    options?: {
      width?: number;
      height?: number;
      preserveAspectRatio?: string;
      fontCallback?: (family: string, bold: boolean, italic: boolean) => string;
      warningCallback?: (warning: string) => void;
    }
  ): void;
}
