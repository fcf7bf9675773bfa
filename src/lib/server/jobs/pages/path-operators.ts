import svgpath from 'svgpath';

const number = (x: number): string => String(Math.round(x * 100) / 100);

/** An SVG path as PDF path operators. ISO 32000-1, 8.5.2. @throws Error where it is no path */
export function pathOperators(d: string): string {
  const out: string[] = [];
  const put = (operator: string, ...points: number[]): void => void out.push([...points.map(number), operator].join(' '));
  // Arcs and shortened curves become plain curves; what is left are the kinds below.
  const path = svgpath(d).abs().unarc().unshort();
  path.iterate((segment, _index, x, y) => {
    const [kind, ...v] = segment as [string, ...number[]];
    if (kind === 'M') put('m', v[0], v[1]);
    else if (kind === 'L') put('l', v[0], v[1]);
    else if (kind === 'H') put('l', v[0], y);
    else if (kind === 'V') put('l', x, v[0]);
    else if (kind === 'C') put('c', ...v);
    else if (kind === 'Q') {
      // A quadratic curve as the cubic one that runs the same way.
      const [cx, cy, toX, toY] = v;
      put('c', x + (2 / 3) * (cx - x), y + (2 / 3) * (cy - y), toX + (2 / 3) * (cx - toX), toY + (2 / 3) * (cy - toY), toX, toY);
    } else out.push('h');
  });
  const { err } = path as unknown as { err: string };
  if (err) throw new Error(`A path cannot be drawn: ${err}`);
  return out.join('\n');
}
