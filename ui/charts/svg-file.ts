/** Attributes of a drawing that name a colour of the page. */
const PAINTS = ['fill', 'stroke'] as const;
const FONT = 'system-ui, sans-serif';
const MONO = 'ui-monospace, monospace';
const NS = 'http://www.w3.org/2000/svg';
/** Pixels of a picture to one of the drawing: sharp on a page. */
const SHARP = 2;

/**
 * A drawing of the page as a file of its own: colours by their values, a ground below, fonts that every machine has.
 * @returns the text of an SVG 1.1 document
 */
export function svgText(svg: SVGSVGElement, title: string): { text: string; width: number; height: number } {
  const styles = getComputedStyle(document.documentElement);
  const value = (paint: string): string => {
    const name = /^var\((--[\w-]+)\)$/.exec(paint)?.[1];
    return name ? styles.getPropertyValue(name).trim() || '#000' : paint;
  };
  const { viewBox } = svg;
  const [width, height] = viewBox.baseVal.width > 0 ? [viewBox.baseVal.width, viewBox.baseVal.height] : [svg.clientWidth, svg.clientHeight];
  const copy = svg.cloneNode(true) as SVGSVGElement;
  // Hatches stand once on the page: the file takes along those that it is painted with.
  const hatches = document.createElementNS(NS, 'defs');
  const named = new Set([...copy.querySelectorAll('[fill^="url(#"]')].map((node) => (node.getAttribute('fill') ?? '').slice(5, -1)));
  for (const id of named) {
    const hatch = document.getElementById(id);
    if (hatch) hatches.append(hatch.cloneNode(true));
  }
  copy.prepend(hatches);
  for (const node of [copy, ...copy.querySelectorAll('*')]) {
    for (const name of PAINTS) {
      const paint = node.getAttribute(name);
      if (paint) node.setAttribute(name, value(paint));
    }
    if (node.tagName === 'text') node.setAttribute('font-family', node.classList.contains('num') ? MONO : FONT);
    node.removeAttribute('class');
  }
  copy.setAttribute('xmlns', NS);
  copy.setAttribute('width', String(width));
  copy.setAttribute('height', String(height));
  const ground = document.createElementNS(NS, 'rect');
  for (const [name, v] of Object.entries({ width: '100%', height: '100%', fill: value('var(--card)') })) ground.setAttribute(name, v);
  const head = document.createElementNS(NS, 'title');
  head.textContent = title;
  copy.prepend(head, ground);
  return { text: new XMLSerializer().serializeToString(copy), width, height };
}

/** The same as a picture. @throws when the browser cannot draw it */
export async function pngOf({ text, width, height }: ReturnType<typeof svgText>): Promise<Blob> {
  const image = new Image();
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(text)}`;
  await image.decode();
  const canvas = document.createElement('canvas');
  canvas.width = width * SHARP;
  canvas.height = height * SHARP;
  canvas.getContext('2d')?.drawImage(image, 0, 0, canvas.width, canvas.height);
  const blob = await new Promise<Blob | null>((done) => {
    canvas.toBlob(done, 'image/png');
  });
  if (!blob) throw new Error('no picture came of it');
  return blob;
}
