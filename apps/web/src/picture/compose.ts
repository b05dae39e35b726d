import { xmlText as escaped, withoutControls } from '@lithagon/core';

/** What goes round a picture besides the view itself. */
export interface Caption {
  title: string;
  /** What the view shows, and its scale. */
  subtitle: string;
  /** Coordinate system and unit. */
  frame: string;
}

const HEAD = 44;
const FOOT = 22;
const PAD = 14;
const STYLES = [
  'fill',
  'fill-opacity',
  'stroke',
  'stroke-width',
  'stroke-dasharray',
  'stroke-opacity',
  'stroke-linejoin',
  'stroke-linecap',
  'paint-order',
  'opacity',
  'font-family',
  'font-size',
  'font-weight',
  'font-style',
  'text-anchor',
  'visibility',
  'display',
];

/** The interface's typeface as a rule that a file can carry, or nothing where it cannot be had. */
async function typeface(): Promise<string> {
  const rules = [...document.styleSheets].flatMap((sheet) => {
    try {
      return [...sheet.cssRules];
    } catch {
      return [];
    }
  });
  const face = rules
    .filter((r): r is CSSFontFaceRule => r instanceof CSSFontFaceRule)
    .find(
      (r) =>
        /Hanken/.test(r.style.getPropertyValue('font-family')) &&
        /U\+0{0,3}0+-00FF|U\+00??/i.test(r.style.getPropertyValue('unicode-range')),
    );
  const url = /url\("?([^")]+)"?\)/.exec(face?.style.getPropertyValue('src') ?? '')?.[1];
  if (!url) return '';
  const bytes = new Uint8Array(
    await (await fetch(new URL(url, face?.parentStyleSheet?.href ?? location.href))).arrayBuffer(),
  );
  let text = '';
  for (const b of bytes) text += String.fromCharCode(b);
  return `@font-face{font-family:"Hanken Grotesk Variable";font-weight:100 900;src:url(data:font/woff2;base64,${btoa(text)}) format("woff2")}`;
}

/** Copy what makes an element look as it does from the page onto its copy. */
function inline(from: Element, to: Element): void {
  const style = getComputedStyle(from);
  const text = STYLES.map((name) => [name, style.getPropertyValue(name)])
    .filter(([, value]) => value !== '' && value !== 'normal')
    .map(([name, value]) => `${name}:${value}`)
    .join(';');
  to.setAttribute('style', text);
  to.removeAttribute('class');
  for (let n = 0; n < from.children.length; n++) inline(from.children[n], to.children[n]);
}

/** The stops of a CSS gradient as those of an SVG one. */
function stopsOf(image: string): string {
  const colors = [...image.matchAll(/(rgba?\([^)]+\)|#[0-9a-f]{3,8})\s*([\d.]+%)?/gi)];
  return colors
    .map(
      ([, color, at], n) =>
        `<stop offset="${at ?? `${(100 * n) / Math.max(1, colors.length - 1)}%`}" stop-color="${color}"/>`,
    )
    .join('');
}

/**
 * A view as it stands as one SVG: rasters as images, drawings as vectors, texts as text, with a title above and the
 * frame below. Controls are left out.
 */
export async function composeSvg(view: HTMLElement, caption: Caption): Promise<string> {
  const body = view.querySelector<HTMLElement>('[data-view-body]') ?? view;
  const box = body.getBoundingClientRect();
  const [width, height] = [Math.round(box.width), Math.round(box.height)];
  const parts: string[] = [];
  const definitions: string[] = [];
  const visit = (element: Element): void => {
    if (element instanceof HTMLElement && element.dataset.controls !== undefined) return;
    const style = getComputedStyle(element);
    if (style.display === 'none' || style.visibility === 'hidden') return;
    const r = element.getBoundingClientRect();
    const [x, y] = [r.left - box.left, r.top - box.top];
    // what is cut off at an edge stays so
    const edge = /^inset\(0px 0px 0px ([\d.]+)px\)$/.exec(style.clipPath)?.[1];
    if (edge) {
      const id = `edge-${definitions.length}`;
      definitions.push(
        `<clipPath id="${id}"><rect x="${x + Number(edge)}" y="${y}" width="${r.width}" height="${r.height}"/></clipPath>`,
      );
      parts.push(`<g clip-path="url(#${id})">`);
      for (const child of element.children) visit(child);
      parts.push('</g>');
      return;
    }
    if (element instanceof HTMLCanvasElement) {
      if (element.width > 0)
        parts.push(
          `<image x="${x}" y="${y}" width="${r.width}" height="${r.height}" preserveAspectRatio="none" style="mix-blend-mode:${style.mixBlendMode};opacity:${style.opacity}" href="${element.toDataURL('image/png')}"/>`,
        );
      return;
    }
    if (element instanceof SVGSVGElement) {
      const copy = element.cloneNode(true) as SVGSVGElement;
      inline(element, copy);
      copy.setAttribute('x', String(x));
      copy.setAttribute('y', String(y));
      copy.setAttribute('width', String(r.width));
      copy.setAttribute('height', String(r.height));
      parts.push(new XMLSerializer().serializeToString(copy));
      return;
    }
    if (style.backgroundImage.includes('gradient')) {
      const id = `gradient-${definitions.length}`;
      definitions.push(`<linearGradient id="${id}">${stopsOf(style.backgroundImage)}</linearGradient>`);
      parts.push(`<rect x="${x}" y="${y}" width="${r.width}" height="${r.height}" fill="url(#${id})"/>`);
    }
    for (const node of element.childNodes) {
      if (node instanceof Element) visit(node);
      else if (node.nodeType === Node.TEXT_NODE && node.textContent?.trim()) {
        const range = document.createRange();
        range.selectNodeContents(node);
        const t = range.getBoundingClientRect();
        parts.push(
          `<text x="${t.left - box.left}" y="${t.bottom - box.top - 0.24 * t.height}" style="font-family:${escaped(style.fontFamily.replace(/"/g, "'"))};font-size:${style.fontSize};font-weight:${style.fontWeight};fill:${style.color}">${escaped(node.textContent.trim())}</text>`,
        );
      }
    }
  };
  for (const child of body.children) visit(child);
  const root = getComputedStyle(document.documentElement);
  const [ground, ink, slate] = ['--vellum', '--ink', '--slate'].map((name) => root.getPropertyValue(name).trim());
  const family = "'Hanken Grotesk Variable','Hanken Grotesk',sans-serif";
  const total = [width + 2 * PAD, height + HEAD + FOOT];
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${total[0]}" height="${total[1]}" viewBox="0 0 ${total[0]} ${total[1]}">`,
    `<defs><style>${await typeface()}</style>${definitions.join('')}</defs>`,
    `<rect width="100%" height="100%" fill="${ground}"/>`,
    `<text x="${PAD}" y="20" style="font-family:${family};font-size:15px;font-weight:650;fill:${ink}">${escaped(caption.title)}</text>`,
    `<text x="${PAD}" y="36" style="font-family:${family};font-size:11.5px;fill:${slate}">${escaped(caption.subtitle)}</text>`,
    `<text x="${total[0] - PAD}" y="${total[1] - 8}" text-anchor="end" style="font-family:${family};font-size:11px;fill:${slate}">${escaped(caption.frame)}</text>`,
    `<svg x="${PAD}" y="${HEAD}" width="${width}" height="${height}" style="overflow:hidden">${parts.join('')}</svg>`,
    '</svg>',
  ]
    .map(withoutControls)
    .join('\n');
}

/** An SVG drawn at so many pixels to each of its own. */
export async function rasterise(svg: string, factor: number): Promise<Blob> {
  const url = URL.createObjectURL(new Blob([svg], { type: 'image/svg+xml' }));
  try {
    const image = new Image();
    await new Promise<void>((resolve, reject) => {
      image.onload = () => resolve();
      image.onerror = () => reject(new Error('the picture cannot be drawn'));
      image.src = url;
    });
    const canvas = document.createElement('canvas');
    canvas.width = Math.round(image.naturalWidth * factor);
    canvas.height = Math.round(image.naturalHeight * factor);
    canvas.getContext('2d')?.drawImage(image, 0, 0, canvas.width, canvas.height);
    return await new Promise<Blob>((resolve, reject) =>
      canvas.toBlob((blob) => (blob ? resolve(blob) : reject(new Error('the picture is too large')))),
    );
  } finally {
    URL.revokeObjectURL(url);
  }
}
