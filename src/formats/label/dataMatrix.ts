import { toSVG } from 'bwip-js/node';

/**
 * A DataMatrix as an SVG document: dark on white with its quiet zone, whatever is behind it.
 * @param text ASCII
 * @source ISO/IEC 16022, drawn by bwip-js
 */
export const dataMatrixSvg = (text: string): string => toSVG({ bcid: 'datamatrix', text, scale: 4, backgroundcolor: 'FFFFFF', padding: 3 });
