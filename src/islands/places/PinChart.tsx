/** A small chart with a pin: dragged, set by a click, or carried with the arrow keys. */
import { type KeyboardEvent, type PointerEvent, type RefObject, useEffect, useMemo, useRef, useState } from 'react';
import { siteAddress } from '@/client/site-root';
import {
  type Bounds,
  type Chart,
  type ChartFeature,
  cornersOf,
  hasCoasts,
  hasLakes,
  type Point,
  projection,
  readBounds,
  writeBounds,
} from '@/core/geo/geo';
import { roomForNames } from '@/core/geo/name-room';
import { groundShapes, isGround, type StreetPath, streetPaths } from '@/core/geo/street-paths';
import { boundsAround, NEARNESS, rounded, unprojection } from '@/core/geo/pin';
import { placesWords } from '@/words/desk';

const w = placesWords.pinChart;

const WIDTH = 460;
const HEIGHT = 300;
const STEP_PX = 6;

interface PinChartProps {
  chart: Chart | undefined;
  pin: Point | null;
  /** what is shown while there is no pin */
  middle: Point;
  areaOnly: boolean;
  onMove: (point: Point) => void;
}

export function PinChart({ chart, pin, middle, areaOnly, onMove }: PinChartProps) {
  const [near, setNear] = useState(pin ? 2 : 0);
  const [centre, setCentre] = useState<Point>(pin ?? middle);
  const svg = useRef<SVGSVGElement>(null);
  const drag = useRef<Drag | null>(null);
  const km = NEARNESS[near] ?? 12;
  const bounds = useMemo(() => boundsAround(centre, km, WIDTH, HEIGHT), [centre, km]);
  const project = useMemo(() => projection(bounds, WIDTH, HEIGHT), [bounds]);
  const streets = useStreets(bounds);
  const lakes = useMemo(() => hasLakes(chart?.features ?? []), [chart]);
  const at = useMemo(() => unprojection(bounds, WIDTH, HEIGHT), [bounds]);
  // A pin that comes from the search, or from typed degrees, is brought into sight.
  useEffect(() => {
    if (!pin || drag.current) return;
    const [x, y] = project(pin);
    if (x < 20 || y < 20 || x > WIDTH - 20 || y > HEIGHT - 20) {
      setCentre(pin);
      setNear((n) => Math.max(n, 2));
    }
  }, [pin, project]);
  const dragging = draggingOf({ svg, drag, bounds, at, centre, setCentre, onMove });
  const onKey = (event: KeyboardEvent): void => {
    const steps: Record<string, [number, number]> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };
    const step = steps[event.key];
    if (!step || !pin) return;
    event.preventDefault();
    const [x, y] = project(pin);
    const by = STEP_PX * (event.shiftKey ? 5 : 1);
    onMove(rounded(at(x + step[0] * by, y + step[1] * by)));
  };
  return (
    <div className="grid gap-2">
      <svg
        ref={svg}
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        className="base w-full h-auto border border-rule-strong bg-ground touch-none cursor-crosshair select-none"
        onPointerDown={dragging.down('sheet')}
        onPointerMove={dragging.move}
        onPointerUp={dragging.up}
        onPointerCancel={dragging.cancel}
      >
        <title>{w.chartWithTheVenues()}</title>
        <rect width={WIDTH} height={HEIGHT} className="sea fill-ground" />
        <Land features={chart?.features ?? []} project={project} />
        {streets && <Streets drawn={streets} project={project} />}
        <Paths paths={streetPaths(groundShapes(chart?.features ?? []), project, WIDTH, HEIGHT)} />
        {pin && (
          <Pin
            pin={pin}
            at={project(pin)}
            around={areaOnly ? Math.max(16, (WIDTH / km) * 1.1) : undefined}
            onDown={dragging.down('pin')}
            onKey={onKey}
          />
        )}
      </svg>
      <div className="row">
        <button type="button" className="button small" disabled={near >= NEARNESS.length - 1} onClick={() => setNear(near + 1)}>
          {w.nearer()}
        </button>
        <button type="button" className="button small" disabled={near === 0} onClick={() => setNear(near - 1)}>
          {w.farther()}
        </button>
        {pin && (
          <button type="button" className="button small" onClick={() => setCentre(pin)}>
            {w.toThePin()}
          </button>
        )}
        <span className="quiet small">{pin ? w.dragThePinOr() : w.clickWhereItLies()}</span>
      </div>
      {(lakes || streets?.credit) && (
        <span className="text-ink-2 text-[12.5px]">{[lakes && w.lakes(), streets?.credit].filter(Boolean).join(' ')}</span>
      )}
    </div>
  );
}

interface PinProps {
  pin: Point;
  /** where it stands on the chart */
  at: [number, number];
  /** how far around it the place may lie, where only its area is shown */
  around: number | undefined;
  onDown: (event: PointerEvent<SVGElement>) => void;
  onKey: (event: KeyboardEvent) => void;
}

function Pin({ pin, at: [x, y], around, onDown, onKey }: PinProps) {
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label={w.theVenuesPinArrow()}
      aria-valuenow={pin.lat}
      aria-valuetext={`${pin.lat.toFixed(5)}, ${pin.lng.toFixed(5)}`}
      className="pin cursor-grab text-red outline-none"
      transform={`translate(${x.toFixed(1)} ${y.toFixed(1)})`}
      onPointerDown={onDown}
      onKeyDown={onKey}
    >
      {around !== undefined && <circle r={around} className="fill-tide [fill-opacity:.16] stroke-tide [stroke-dasharray:4_4]" />}
      <circle r="14" className="fill-transparent in-[g:focus-visible]:stroke-tide in-[g:focus-visible]:stroke-2" />
      <path className="fill-red stroke-ink stroke-2" d="M0 0V-24" />
      <path className="fill-red" d="M0 -25L15 -19L0 -13Z" />
      <circle r="3.5" className="fill-sheet stroke-ink stroke-2" />
    </g>
  );
}

interface Drag {
  kind: 'pin' | 'sheet';
  x: number;
  y: number;
  centre: Point;
  moved: boolean;
}

interface Dragging {
  svg: RefObject<SVGSVGElement | null>;
  drag: RefObject<Drag | null>;
  bounds: ReturnType<typeof boundsAround>;
  /** the point of the earth under a spot of the chart */
  at: (x: number, y: number) => Point;
  centre: Point;
  setCentre: (centre: Point) => void;
  onMove: (point: Point) => void;
}

/** The pointer on the chart: it carries the pin or the chart, and a press sets the pin. */
function draggingOf({ svg, drag, bounds, at, centre, setCentre, onMove }: Dragging) {
  const spot = (event: PointerEvent): [number, number] => {
    const box = svg.current?.getBoundingClientRect();
    return box ? [((event.clientX - box.left) / box.width) * WIDTH, ((event.clientY - box.top) / box.height) * HEIGHT] : [0, 0];
  };
  const down = (kind: 'pin' | 'sheet') => (event: PointerEvent<SVGElement>) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    const [x, y] = spot(event);
    drag.current = { kind, x, y, centre, moved: false };
    svg.current?.setPointerCapture(event.pointerId);
  };
  const move = (event: PointerEvent<SVGElement>): void => {
    const held = drag.current;
    if (!held) return;
    const [x, y] = spot(event);
    if (Math.hypot(x - held.x, y - held.y) > 3) held.moved = true;
    if (!held.moved) return;
    if (held.kind === 'pin') onMove(rounded(at(x, y)));
    else {
      const degrees = (held.centre.lng - bounds.west) * 2;
      const perX = degrees / WIDTH;
      const perY = (bounds.north - bounds.south) / HEIGHT;
      setCentre({ lng: held.centre.lng - (x - held.x) * perX, lat: held.centre.lat + (y - held.y) * perY });
    }
  };
  const up = (event: PointerEvent<SVGElement>): void => {
    const held = drag.current;
    drag.current = null;
    if (held && !held.moved && held.kind === 'sheet') onMove(rounded(at(...spot(event))));
  };
  const cancel = (): void => {
    drag.current = null;
  };
  return { down, move, up, cancel };
}

interface LandProps {
  features: readonly ChartFeature[];
  project: (point: Point) => [number, number];
}

function Land({ features, project }: LandProps) {
  const path = (points: [number, number][]): string =>
    points
      .map(
        ([lng, lat], i) =>
          `${i ? 'L' : 'M'}${project({ lat, lng })
            .map((n) => n.toFixed(1))
            .join(' ')}`,
      )
      .join('');
  const look = { coast: 'shore', land: hasCoasts(features) ? 'cut' : 'land' } as Partial<Record<string, string>>;
  return (
    <>
      {features.map((feature, i) => {
        const { properties, geometry } = feature;
        const { kind } = properties;
        if (geometry.type === 'Point' || isGround(feature)) return null;
        const d = geometry.type === 'Polygon' ? geometry.coordinates.map((ring) => `${path(ring)}Z`).join('') : path(geometry.coordinates);
        return <path key={i} className={look[kind] ?? kind} fillRule="evenodd" d={d} />;
      })}
      <Names features={features} project={project} />
    </>
  );
}

/** Streets are asked for so long after the chart came to rest, in ms. */
const REST = 200;

/** Streets as the server drew them: of which part, and who made their data. */
interface Drawn {
  part: Bounds;
  paths: StreetPath[];
  credit: string;
}

/** The streets of what is seen, where the site has them. */
function useStreets(bounds: Bounds): Drawn | undefined {
  const [drawn, setDrawn] = useState<Drawn>();
  const asked = writeBounds(bounds);
  useEffect(() => {
    const leave = new AbortController();
    const timer = setTimeout(() => {
      const query = new URLSearchParams({ part: asked, wide: String(WIDTH), high: String(HEIGHT) });
      fetch(siteAddress(`/api/v1/streets?${query}`), { signal: leave.signal })
        .then((response) => (response.ok ? (response.json() as Promise<Omit<Drawn, 'part'>>) : { paths: [], credit: '' }))
        .then((answer) => {
          const part = readBounds(asked);
          if (part) setDrawn({ part, ...answer });
        })
        // Without them the coasts are there.
        .catch(() => undefined);
    }, REST);
    return () => {
      clearTimeout(timer);
      leave.abort();
    };
  }, [asked]);
  return drawn?.paths.length ? drawn : undefined;
}

/** While the chart moves, the streets that are there move along. */
function Streets({ drawn: { part, paths }, project }: { drawn: Drawn; project: (point: Point) => [number, number] }) {
  const [[left, bottom], [right, top]] = cornersOf(part).map(project) as [[number, number], [number, number]];
  return (
    <g
      data-streets
      className="pointer-events-none"
      transform={`translate(${left} ${top}) scale(${(right - left) / WIDTH} ${(bottom - top) / HEIGHT})`}
    >
      <Paths paths={paths} />
    </g>
  );
}

const Paths = ({ paths }: { paths: readonly StreetPath[] }) =>
  paths.map(({ d, fill, stroke, width, dash }, i) => (
    <path
      key={i}
      d={d}
      style={{ fill, stroke }}
      fillRule="evenodd"
      strokeWidth={width}
      strokeDasharray={dash || undefined}
      strokeLinejoin="round"
    />
  ));

/** The chart's names; of its towns those for which there is room. */
function Names({ features, project }: LandProps) {
  const clear = roomForNames(WIDTH, HEIGHT);
  return features.map(({ properties: { name = '', rank }, geometry }, i) => {
    if (geometry.type !== 'Point') return null;
    const [x, y] = project({ lng: geometry.coordinates[0], lat: geometry.coordinates[1] });
    if (rank !== undefined && !clear(x, y, name)) return null;
    return (
      <text key={i} className={rank === undefined ? 'pointer-events-none' : 'pointer-events-none town'} textAnchor="middle" x={x} y={y}>
        {name}
      </text>
    );
  });
}
