import { Parser } from 'htmlparser2';
import { safe as written } from '../html-out/escape';
import { UnreadableFileError } from '../reading';

/** A drawing that runs nothing and fetches nothing. */
export interface SafeSvg {
  readonly svg: string;
  readonly width: number;
  readonly height: number;
  /** What was left out because it could run or fetch something. */
  readonly leftOut: number;
}

/** Elements that run or embed something, or can change what is safe into what is not (SVG 2, section 1.5 and 2.5). */
const FORBIDDEN = new Set([
  'script',
  'foreignobject',
  'iframe',
  'object',
  'embed',
  'audio',
  'video',
  'canvas',
  'handler',
  'listener',
  'set',
  'link',
]);
const ANIMATION = /^animate/i;
/** Attributes that name what is fetched. */
const REFERENCE = /^(?:[\w-]+:)?(?:href|src|data|action|base)$/i;
const INTERNAL = /^\s*(?:#|data:image\/(?:png|jpe?g|gif|webp)[;,])/i;
/** The longer side of a drawing that names no size in pixels, or a very small one. */
const LONGER_SIDE = 1_600;
const SMALL = 400;
/** The deepest that elements may be nested, and the longest drawing. */
const DEEPEST = 400;
const LONGEST = 20_000_000;

/**
 * Makes an SVG safe to be shown anywhere: scripts, embedded documents, animations, event attributes and whatever is
 * fetched from elsewhere are left out. A drawing has no pixels of its own: it gets as many as it says, or 1,600 along its
 * longer side.
 * @throws UnreadableFileError for what is no drawing
 */
export function safeSvg(raw: string): SafeSvg {
  if (raw.length > LONGEST) throw new UnreadableFileError('The drawing is longer than 20 million characters. Save it as PNG.');
  const out: string[] = [];
  let leftOut = 0;
  let depth = 0;
  /** Depth at which something forbidden began; everything in it goes with it. */
  let silent = 0;
  let size: { width: number; height: number } | null = null;
  let inStyle = false;
  let style = '';
  const parser = new Parser(
    {
      onopentag(name, attributes) {
        depth++;
        if (depth > DEEPEST) throw new UnreadableFileError('The drawing is nested more than 400 deep. Save it as PNG.');
        if (silent > 0) return;
        const bare = name.replace(/^.*:/, '').toLowerCase();
        if (depth === 1) {
          if (bare !== 'svg') throw new UnreadableFileError('The file is no SVG drawing.');
          size = sizeOf(attributes);
        }
        if (FORBIDDEN.has(bare) || ANIMATION.test(bare)) {
          silent = depth;
          leftOut++;
          return;
        }
        inStyle = bare === 'style';
        style = '';
        const kept = Object.entries(attributes).flatMap(([key, value]) => {
          const safe = safeAttribute(key, value);
          if (safe === null) {
            leftOut++;
            return [];
          }
          return depth === 1 && /^(width|height)$/i.test(key) ? [] : [` ${key}="${written(safe)}"`];
        });
        const own = depth === 1 ? ` width="${size!.width}" height="${size!.height}"${viewBox(attributes, size!)}` : '';
        out.push(`<${name}${own}${kept.join('')}>`);
      },
      ontext(text) {
        if (silent > 0) return;
        if (inStyle) style += text;
        else out.push(written(text));
      },
      onclosetag(name) {
        if (silent > 0) {
          if (silent === depth) silent = 0;
        } else {
          if (inStyle) {
            const safe = safeStyle(style);
            if (safe !== style) leftOut++;
            out.push(written(safe));
            inStyle = false;
          }
          out.push(`</${name}>`);
        }
        depth--;
      },
    },
    { xmlMode: true, decodeEntities: true },
  );
  parser.write(raw);
  parser.end();
  if (!size) throw new UnreadableFileError('The file is no SVG drawing.');
  return { svg: withNamespace(out.join('')), ...(size as { width: number; height: number }), leftOut };
}

/** An attribute as it may stay, or null. */
function safeAttribute(name: string, value: string): string | null {
  if (!/^[a-z_][\w:.-]*$/i.test(name) || /^on/i.test(name.replace(/^.*:/, ''))) return null;
  if (REFERENCE.test(name) && !INTERNAL.test(value)) return null;
  const safe = safeStyle(value);
  return safe === value ? value : null;
}

/** A style without what it fetches: imports, and addresses but for those within the drawing. */
const safeStyle = (style: string): string =>
  style
    .replace(/@import[^;]{0,2000};?/gi, '')
    .replace(/(?:url|image|src)\(\s*["']?(?!\s*(?:#|data:image\/(?:png|jpe?g|gif|webp)[;,]))[^)]{0,100000}\)/gi, 'none')
    .replace(/expression\(|javascript:|-moz-binding/gi, '');

const withNamespace = (svg: string): string =>
  /^<svg\b[^>]*\sxmlns=/.test(svg) || !svg.startsWith('<svg') ? svg : svg.replace('<svg', '<svg xmlns="http://www.w3.org/2000/svg"');

/** Pixels that a drawing gets. */
function sizeOf(attributes: Readonly<Record<string, string>>): { width: number; height: number } {
  const [, , across = 0, down = 0] = (attributes['viewBox'] ?? '')
    .trim()
    .split(/[\s,]+/)
    .map(Number);
  const pixels = (length: string | undefined): number => (length && /^\s*[\d.]+(px)?\s*$/.test(length) ? parseFloat(length) : 0);
  let [width, height] = [pixels(attributes['width']), pixels(attributes['height'])];
  if (!(width > 0 && height > 0)) [width, height] = across > 0 && down > 0 ? [across, down] : [300, 150];
  const longer = Math.max(width, height);
  const factor = longer < SMALL ? LONGER_SIDE / longer : longer > 8_000 ? 8_000 / longer : 1;
  return { width: Math.max(1, Math.round(width * factor)), height: Math.max(1, Math.round(height * factor)) };
}

/** A drawing without a view of its own shows as much as it did when it had its first size. */
function viewBox(attributes: Readonly<Record<string, string>>, size: { width: number; height: number }): string {
  if (attributes['viewBox']) return '';
  const [width, height] = [parseFloat(attributes['width'] ?? ''), parseFloat(attributes['height'] ?? '')];
  return ` viewBox="0 0 ${width > 0 ? width : size.width} ${height > 0 ? height : size.height}"`;
}
