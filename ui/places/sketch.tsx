'use client';
import { select } from 'd3-selection';
import { type ZoomTransform, zoom, zoomIdentity } from 'd3-zoom';
import { useEffect, useMemo, useRef } from 'react';
import type { Position } from '@/core/records/place-questions';
import { KM_PER_MILE } from '@/core/units/distance';
import { fitAll, type Label, placeAround, placeDistances, placeNames, ringStep, type Spot } from './sketch-layout';

const STONE = 16;
const MARGIN = 34;
const FOOT = 40;
type Props = {
  /** In the order in which names are given: the first ones are named first. */
  spots: readonly Spot[];
  middle: Position;
  /** What distances are counted from, in words; a house marks it when no stone stands there. */
  middleName: string | null;
  house: boolean;
  /** In which distances are read. */
  distance: 'km' | 'mi';
  selected: string | null;
  onPick: (id: string) => void;
  className?: string;
};

/**
 * Sites as milestones on a plain sketch: north is up, distances from the middle are true. Drawn on a canvas, so that
 * thousands of stones move as one. The list beside it says the same in words.
 */
export function Sketch({ spots, middle, middleName, house: withHouse, distance, selected, onPick, className = '' }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const points = useMemo(() => placeAround(middle, spots), [middle, spots]);
  const state = useRef({ points, selected, distance, house: withHouse, hover: null as string | null, view: zoomIdentity as ZoomTransform, onPick });
  state.current = { ...state.current, points, selected, distance, house: withHouse, onPick };
  const redraw = useRef(() => {});
  const refit = useRef(() => {});
  const step = useRef((_by: number) => {});

  useEffect(() => {
    const el = canvas.current;
    const ctx = el?.getContext('2d');
    if (!el || !ctx) return;
    let frame = 0;
    let base = { pxPerKm: 1, x: 0, y: 0 };
    let drawn: { id: string; name: string; x: number; y: number }[] = [];
    const size = () => ({ width: el.clientWidth, height: el.clientHeight });
    const draw = () => {
      frame = 0;
      const { width, height } = size();
      const ratio = devicePixelRatio || 1;
      if (el.width !== Math.round(width * ratio) || el.height !== Math.round(height * ratio)) {
        el.width = Math.round(width * ratio);
        el.height = Math.round(height * ratio);
      }
      ctx.setTransform(ratio, 0, 0, ratio, 0, 0);
      drawn = paint(ctx, width, height, base, state.current);
    };
    redraw.current = () => {
      frame ||= requestAnimationFrame(draw);
    };
    const act = zoom<HTMLCanvasElement, unknown>()
      .scaleExtent([0.2, 400])
      .on('zoom', (e: { transform: ZoomTransform }) => {
        state.current.view = e.transform;
        redraw.current();
      });
    const target = select(el).call(act).on('dblclick.zoom', null);
    refit.current = () => {
      const { width, height } = size();
      // The plates at the foot stand on open ground.
      base = fitAll([...state.current.points, { x: 0, y: 0 }], width, height - FOOT, MARGIN);
      base.y += FOOT / 2 / base.pxPerKm;
      target.call(act.transform, zoomIdentity);
      redraw.current();
    };
    step.current = (by) => target.call(act.scaleBy, by);
    const nearest = (e: PointerEvent | MouseEvent) => {
      const box = el.getBoundingClientRect();
      const [x, y] = [e.clientX - box.left, e.clientY - box.top];
      let best: { id: string; d: number } | null = null;
      for (const s of drawn) {
        const d = Math.hypot(s.x - x, s.y - STONE / 2 - y);
        if (d < 22 && (!best || d < best.d)) best = { id: s.id, d };
      }
      return best?.id ?? null;
    };
    const onClick = (e: MouseEvent) => {
      const id = nearest(e);
      if (id) state.current.onPick(id);
    };
    const onMove = (e: PointerEvent) => {
      const id = e.pointerType === 'mouse' ? nearest(e) : null;
      if (id === state.current.hover) return;
      state.current.hover = id;
      el.classList.toggle('cursor-pointer', id !== null);
      redraw.current();
    };
    el.addEventListener('click', onClick);
    el.addEventListener('pointermove', onMove);
    const sized = new ResizeObserver(() => refit.current());
    sized.observe(el);
    // The night comes and goes without a reload.
    const sheet = new MutationObserver(() => redraw.current());
    sheet.observe(document.documentElement, { attributes: true, attributeFilter: ['data-sheet'] });
    void document.fonts.ready.then(() => redraw.current());
    return () => {
      cancelAnimationFrame(frame);
      sized.disconnect();
      sheet.disconnect();
      el.removeEventListener('click', onClick);
      el.removeEventListener('pointermove', onMove);
      target.on('.zoom', null);
    };
  }, []);

  // biome-ignore lint/correctness/useExhaustiveDependencies: other sites or another middle, another view
  useEffect(() => refit.current(), [points]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: drawn anew when another site is chosen
  useEffect(() => redraw.current(), [selected]);

  return (
    <div className={`relative ${className}`}>
      <canvas
        ref={canvas}
        role="img"
        aria-label={`Sketch of ${spots.length} sites, with distances from ${middleName ?? 'the middle'}. The list says the same.`}
        className="block size-full touch-none bg-band"
      />
      <div className="absolute bottom-2 right-2 flex gap-1">
        <button type="button" className="plate !min-h-[36px] !w-[36px] !p-0" aria-label="Closer" onClick={() => step.current(1.6)}>
          +
        </button>
        <button type="button" className="plate !min-h-[36px] !w-[36px] !p-0" aria-label="Farther" onClick={() => step.current(1 / 1.6)}>
          −
        </button>
        <button type="button" className="plate !min-h-[36px] !px-2" onClick={() => refit.current()}>
          All
        </button>
      </div>
    </div>
  );
}

type Drawn = { id: string; name: string; x: number; y: number };
type Paint = { points: readonly Drawn[]; selected: string | null; distance: 'km' | 'mi'; house: boolean; hover: string | null; view: ZoomTransform };

function paint(ctx: CanvasRenderingContext2D, width: number, height: number, base: { pxPerKm: number; x: number; y: number }, s: Paint): Drawn[] {
  const css = getComputedStyle(document.documentElement);
  const colour = (name: string) => css.getPropertyValue(name).trim();
  const mono = css.getPropertyValue('--font-figures').trim() || 'monospace';
  const words = css.getPropertyValue('--font-words').trim() || 'sans-serif';
  const toX = (km: number) => s.view.applyX((km - base.x) * base.pxPerKm + width / 2);
  const toY = (km: number) => s.view.applyY((km - base.y) * base.pxPerKm + height / 2);
  const pxPerKm = base.pxPerKm * s.view.k;
  ctx.clearRect(0, 0, width, height);
  const [cx, cy] = [toX(0), toY(0)];
  const around = rings(ctx, cx, cy, pxPerKm, width, height, colour('--rule'), s.distance);

  const onScreen = s.points
    .map((p) => ({ id: p.id, name: p.name, x: toX(p.x), y: toY(p.y) }))
    .filter((p) => p.x > -STONE && p.x < width + STONE && p.y > -STONE && p.y < height + STONE * 2);
  const first = (p: Drawn) => (p.id === s.hover ? 0 : p.id === s.selected ? 1 : 2);
  const inOrder = [...onScreen].sort((a, b) => first(a) - first(b));
  ctx.fillStyle = colour('--ink');
  const stone = stonePath(STONE);
  const lay = (p: Drawn) => {
    const [x, y] = [p.x - STONE / 2, p.y - STONE * 1.1];
    ctx.translate(x, y);
    ctx.fill(stone);
    ctx.stroke(stone);
    ctx.translate(-x, -y);
  };
  ctx.strokeStyle = colour('--band');
  ctx.lineWidth = 1;
  for (let i = inOrder.length - 1; i >= 0; i--) {
    const p = inOrder[i] as Drawn;
    if (p.id !== s.selected) lay(p);
  }
  const chosen = onScreen.find((p) => p.id === s.selected);
  if (chosen) {
    ctx.fillStyle = colour('--paint');
    ctx.strokeStyle = colour('--ink');
    ctx.lineWidth = 2;
    lay(chosen);
  }
  if (s.house) house(ctx, cx, cy, colour('--ink'));

  ctx.font = `600 12px ${words}`;
  ctx.textBaseline = 'middle';
  ctx.lineJoin = 'round';
  ctx.strokeStyle = colour('--band');
  ctx.lineWidth = 3;
  ctx.fillStyle = colour('--ink');
  const size = { width, height, stone: STONE, letter: 6.6, line: 14 };
  const names = placeNames(inOrder, size, 40);
  const write = (n: Label) => {
    ctx.textAlign = n.align;
    ctx.strokeText(n.text, n.x, n.y);
    ctx.fillText(n.text, n.x, n.y);
  };
  names.forEach(write);
  ctx.font = `11px ${mono}`;
  ctx.fillStyle = colour('--ink-2');
  // The plates at the foot cover what stands under them.
  placeDistances(around, { x: cx, y: cy }, { ...size, height: height - FOOT }, onScreen, names).forEach(write);
  return onScreen;
}

function rings(
  ctx: CanvasRenderingContext2D,
  cx: number,
  cy: number,
  pxPerKm: number,
  width: number,
  height: number,
  line: string,
  distance: 'km' | 'mi',
): { text: string; r: number }[] {
  const unit = { name: distance, km: distance === 'mi' ? KM_PER_MILE : 1 };
  // Round figures of what distances are read in.
  const step = ringStep(pxPerKm * unit.km, 44) * unit.km;
  const far = Math.max(Math.hypot(cx, cy), Math.hypot(width - cx, cy), Math.hypot(cx, height - cy), Math.hypot(width - cx, height - cy)) / pxPerKm;
  ctx.setLineDash([4, 5]);
  ctx.strokeStyle = line;
  ctx.lineWidth = 1;
  const drawn: { text: string; r: number }[] = [];
  for (let km = step, n = 0; km <= far && n < 24; km += step, n++) {
    ctx.beginPath();
    ctx.arc(cx, cy, km * pxPerKm, 0, 2 * Math.PI);
    ctx.stroke();
    drawn.push({ text: `${Number((km / unit.km).toPrecision(3))} ${unit.name}`, r: km * pxPerKm });
  }
  ctx.setLineDash([]);
  return drawn;
}

/** A milestone of a width: round top, straight foot. */
function stonePath(w: number): Path2D {
  const p = new Path2D();
  p.moveTo(0, w * 1.1);
  p.lineTo(0, w / 2);
  p.arc(w / 2, w / 2, w / 2, Math.PI, 0);
  p.lineTo(w, w * 1.1);
  p.closePath();
  return p;
}

function house(ctx: CanvasRenderingContext2D, x: number, y: number, ink: string) {
  ctx.fillStyle = ink;
  ctx.beginPath();
  ctx.moveTo(x, y - 7);
  ctx.lineTo(x + 7, y - 1);
  ctx.lineTo(x + 5, y - 1);
  ctx.lineTo(x + 5, y + 5);
  ctx.lineTo(x - 5, y + 5);
  ctx.lineTo(x - 5, y - 1);
  ctx.lineTo(x - 7, y - 1);
  ctx.closePath();
  ctx.fill();
}
