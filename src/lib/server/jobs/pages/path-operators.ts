const ARGUMENTS: Record<string, number> = { m: 2, l: 2, h: 1, v: 1, c: 6, s: 4, q: 4, t: 2, z: 0 };

const number = (x: number): string => String(Math.round(x * 100) / 100);

/** An SVG path (lines and curves; no arcs, which the engraver does not draw) as PDF path operators. ISO 32000-1, 8.5.2. */
export function pathOperators(d: string): string {
  const tokens = d.match(/[a-zA-Z]|-?(?:\d+\.?\d*|\.\d+)(?:e-?\d+)?/g) ?? [];
  const out: string[] = [];
  let k = 0;
  let command = 'M';
  let [x, y, startX, startY] = [0, 0, 0, 0];
  /** The control point that a smooth curve mirrors. */
  let mirror: [number, number, string] = [0, 0, ''];
  while (k < tokens.length) {
    if (/[a-zA-Z]/.test(tokens[k])) command = tokens[k++];
    const kind = command.toLowerCase();
    const relative = command === kind;
    const count = ARGUMENTS[kind];
    if (count === undefined) throw new Error(`A path has "${command}", which is not drawn here.`);
    const v = tokens.slice(k, k + count).map(Number);
    k += count;
    const [ox, oy] = relative ? [x, y] : [0, 0];
    const put = (operator: string, ...points: number[]): void => void out.push(`${points.map(number).join(' ')} ${operator}`);
    const curve = (x1: number, y1: number, x2: number, y2: number, toX: number, toY: number): void => {
      put('c', x1, y1, x2, y2, toX, toY);
      [x, y] = [toX, toY];
    };
    const smooth = (kinds: string): [number, number] =>
      kinds.includes(mirror[2] || '-') ? [2 * x - mirror[0], 2 * y - mirror[1]] : [x, y];
    const quadratic = (cx: number, cy: number, toX: number, toY: number): void => {
      curve(x + (2 / 3) * (cx - x), y + (2 / 3) * (cy - y), toX + (2 / 3) * (cx - toX), toY + (2 / 3) * (cy - toY), toX, toY);
      mirror = [cx, cy, 'q'];
    };
    switch (kind) {
      case 'm':
        [x, y] = [ox + v[0], oy + v[1]];
        [startX, startY] = [x, y];
        put('m', x, y);
        // Further pairs are lines.
        command = relative ? 'l' : 'L';
        break;
      case 'l':
        [x, y] = [ox + v[0], oy + v[1]];
        put('l', x, y);
        break;
      case 'h':
        x = ox + v[0];
        put('l', x, y);
        break;
      case 'v':
        y = oy + v[0];
        put('l', x, y);
        break;
      case 'c':
        curve(ox + v[0], oy + v[1], ox + v[2], oy + v[3], ox + v[4], oy + v[5]);
        mirror = [ox + v[2], oy + v[3], 'c'];
        break;
      case 's': {
        const [x1, y1] = smooth('c');
        curve(x1, y1, ox + v[0], oy + v[1], ox + v[2], oy + v[3]);
        mirror = [ox + v[0], oy + v[1], 'c'];
        break;
      }
      case 'q':
        quadratic(ox + v[0], oy + v[1], ox + v[2], oy + v[3]);
        break;
      case 't':
        quadratic(...smooth('q'), ox + v[0], oy + v[1]);
        break;
      default:
        out.push('h');
        [x, y] = [startX, startY];
    }
    if (!'csqt'.includes(kind)) mirror = [0, 0, ''];
  }
  return out.join('\n');
}
