import {
  useCallback,
  useEffect,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
  type Dispatch,
  type MouseEvent,
  type PointerEvent,
  type RefObject,
  type SetStateAction,
} from "react";
import { useActions } from "../../../app/actions";
import { useAsked, useAsking } from "../../../app/asked";
import { useInks } from "../../../look/lighting";
import { usePlan } from "../../../data/plan";
import { TextButton } from "../../../parts/Button";
import { number, money } from "../../../parts/format";
import * as S from "./MapView.styles";
import { useSift } from "../useSift";
import { drawMap } from "./drawMap";
import { petalsOf } from "./petals";
import {
  endsOf,
  inShape,
  nearest,
  placesOf,
  scalesOf,
  zoomed,
  zoomedTo,
  type Point,
  type Zoom,
} from "./mapShapes";

const whole: Zoom = { k: 1, x: 0, y: 0 };
const closest = 12;
const pan = 60;

/** Searches against price, both on log scales, with the ceiling's line: select a region. */
export function MapView() {
  const { sheet, summary } = usePlan();
  const { shown, idOf, rowOf, selected, setSelected } = useSift();
  const { setActive } = useAsking();
  const { active } = useAsked();
  const [zoom, setZoom] = useState(whole);
  const [lasso, setLasso] = useState(false);
  const [shape, setShape] = useState<Point[]>([]);
  const [over, setOver] = useState<number | null>(null);
  const [size, box] = useSize();
  const canvas = useRef<HTMLCanvasElement>(null);
  const limit = summary.brief.values.max_cpc ?? summary.brief.worth.ceiling;

  const { places, scales } = usePlaces(shown, limit, size, zoom);
  const here = active === null ? null : (rowOf.get(active) ?? null);
  const { currency } = summary.brief.values;
  useDrawing(canvas, { places, scales, size, here, shape, limit, currency });
  const select = (from: Point[], adds: boolean) => {
    const found = inShape(places, from, lasso).map(idOf);
    setSelected(new Set([...(adds ? selected : []), ...found]));
  };
  const onUp = (event: PointerEvent) => {
    const [start] = shape;
    const end = pointOf(event);
    setShape([]);
    if (!start) return;
    if (Math.hypot(end[0] - start[0], end[1] - start[1]) < 4) {
      const row = nearest(places, end);
      if (row !== null) setActive(idOf(row));
      if (row === null || !event.shiftKey) setSelected(new Set());
      return;
    }
    select(lasso ? shape : [start, end], event.shiftKey);
  };
  const step = useCallback(
    (by: number) => {
      // left to right: by price, then by searches
      const order = places.map((place) => place.row);
      const at = here === null ? -1 : order.indexOf(here);
      const row = order[Math.max(0, Math.min(order.length - 1, at + by))];
      if (row !== undefined) setActive(idOf(row));
    },
    [places, here, idOf, setActive],
  );
  useMapActions({
    size,
    step,
    setZoom,
    lasso,
    setLasso,
    places: () => places.map(({ row }) => idOf(row)),
  });
  const told = over ?? here;
  const unplaced = shown.length - places.length;
  return (
    <>
      <S.Tools>
        <TextButton onPress={() => setLasso(!lasso)} aria-pressed={lasso}>
          {lasso ? "with a lasso" : "with a rectangle"}
        </TextButton>
        <kbd>q</kbd> select · <kbd>+</kbd> <kbd>-</kbd> or the wheel zoom, <kbd>z</kbd> all ·{" "}
        <kbd>x</kbd> adds · Shift adds to the selection
        {unplaced > 0 && ` · ${number(unplaced)} without a price or a volume are not drawn`}
      </S.Tools>
      <S.Box ref={box}>
        <canvas
          ref={canvas}
          width={size[0] * devicePixelRatio}
          height={size[1] * devicePixelRatio}
          style={{ width: size[0], height: size[1] }}
          role="img"
          aria-label={`Map of ${number(places.length)} keywords: price a click across, searches a month upwards, ceiling of buying intent at ${money(limit)}`}
          onPointerDown={(event) => {
            event.currentTarget.setPointerCapture(event.pointerId);
            setShape([pointOf(event)]);
          }}
          onPointerMove={(event) => {
            const point = pointOf(event);
            if (shape.length > 0) setShape(lasso ? [...shape, point] : [shape[0]!, point]);
            else setOver(nearest(places, point));
          }}
          onPointerLeave={() => setOver(null)}
          onPointerUp={onUp}
          onWheel={(event) => {
            const about = pointOf(event);
            setZoom((z) => zoomed(z, size, event.deltaY < 0 ? 1.2 : 1 / 1.2, about, closest));
          }}
        />
        <S.Told role="status" aria-live="polite">
          {told !== null &&
            `${sheet.texts.text[told]}: ${number(sheet.figures.searches[told])} searches, ${money(sheet.figures.cpc_median[told])} a click`}
        </S.Told>
      </S.Box>
    </>
  );
}

/** Where each keyword lies in the map as it is zoomed, and the scales of its axes. */
function usePlaces(shown: number[], limit: number, size: Point, zoom: Zoom) {
  const { sheet } = usePlan();
  const ends = useMemo(
    () => endsOf(sheet, limit),
    // eslint-disable-next-line react-hooks/exhaustive-deps -- of the sheet only searches and prices count
    [sheet.figures.searches, sheet.figures.cpc_median, limit],
  );
  const scales = useMemo(() => scalesOf(ends, size, zoom), [ends, size, zoom]);
  const unzoomed = useMemo(
    () => placesOf(sheet, shown, scalesOf(ends, size, whole)),
    // eslint-disable-next-line react-hooks/exhaustive-deps -- as above
    [ends, shown, size],
  );
  const places = useMemo(() => zoomedTo(unzoomed, zoom), [unzoomed, zoom]);
  return { places, scales };
}

type Drawn = Pick<
  Parameters<typeof drawMap>[1],
  "places" | "scales" | "size" | "here" | "shape" | "limit" | "currency"
>;

/** Draw the map anew, once a frame, when anything of it has changed. */
function useDrawing(
  canvas: RefObject<HTMLCanvasElement | null>,
  { places, scales, size, here, shape, limit, currency }: Drawn,
) {
  const { sheet } = usePlan();
  const { shown, rowOf, selected } = useSift();
  const inks = useInks();
  const ranked = useRanked(shown);
  const chosen = useMemo(
    () => new Set([...selected].flatMap((id) => rowOf.get(id) ?? [])),
    [selected, rowOf],
  );
  const petals = useMemo(() => petalsOf(sheet, chosen, inks), [sheet, chosen, inks]);
  useEffect(() => {
    const context = canvas.current?.getContext("2d");
    if (!context) return;
    const scene = { sheet, petals, places, scales, size, chosen, here, shape, limit, ranked };
    const ask = requestAnimationFrame(() => drawMap(context, { ...scene, currency, inks }));
    return () => cancelAnimationFrame(ask);
  }, [
    canvas,
    sheet,
    petals,
    places,
    scales,
    size,
    chosen,
    here,
    shape,
    limit,
    ranked,
    currency,
    inks,
  ]);
}

const pointOf = (event: MouseEvent): Point => {
  const from = event.currentTarget.getBoundingClientRect();
  return [event.clientX - from.left, event.clientY - from.top];
};

type Acting = {
  size: Point;
  step: (by: number) => void;
  setZoom: Dispatch<SetStateAction<Zoom>>;
  lasso: boolean;
  setLasso: (lasso: boolean) => void;
  /** Ids of the keywords that the map now shows. */
  places: () => number[];
};

/** The keys of the map. */
function useMapActions({ size, step, setZoom, lasso, setLasso, places }: Acting) {
  const { selected, setSelected } = useSift();
  const { active } = useAsked();
  useActions([
    { name: "Next keyword on the map", keys: ["j", "ArrowRight", "ArrowDown"], run: () => step(1) },
    { name: "Keyword before on the map", keys: ["k", "ArrowLeft", "ArrowUp"], run: () => step(-1) },
    { name: "Zoom in", keys: ["+", "="], run: () => setZoom((z) => zoomed(z, size, 1.5)) },
    { name: "Zoom out", keys: ["-"], run: () => setZoom((z) => zoomed(z, size, 1 / 1.5)) },
    { name: "The whole map", keys: ["z"], run: () => setZoom(whole) },
    { name: "Map: to the left", keys: ["a"], run: () => setZoom((z) => ({ ...z, x: z.x + pan })) },
    { name: "Map: to the right", keys: ["d"], run: () => setZoom((z) => ({ ...z, x: z.x - pan })) },
    {
      name: "Select what the map now shows",
      keys: ["Ctrl+a"],
      run: () => setSelected(new Set(places())),
    },
    {
      name: "Select this keyword too",
      keys: ["x"],
      run: () => active !== null && setSelected(new Set([...selected, active])),
    },
    {
      name: lasso ? "Select with a rectangle" : "Select with a lasso",
      keys: ["q"],
      run: () => setLasso(!lasso),
    },
    { name: "Select nothing", keys: ["Escape"], run: () => setSelected(new Set()) },
  ]);
}

/** Keywords by customers, then searches: the ones drawn when not all can be. */
function useRanked(shown: number[]): number[] {
  const { customers, searches } = usePlan().sheet.figures;
  return useMemo(() => {
    const by = (row: number) => (customers[row] ?? 0) * 1e9 + (searches[row] ?? 0);
    return shown.slice().sort((a, b) => by(b) - by(a));
  }, [shown, customers, searches]);
}

function useSize() {
  const box = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState<Point>([900, 500]);
  useLayoutEffect(() => {
    if (!box.current || typeof ResizeObserver === "undefined") return;
    const watch = new ResizeObserver(([entry]) => {
      if (entry) setSize([entry.contentRect.width, entry.contentRect.height]);
    });
    watch.observe(box.current);
    return () => watch.disconnect();
  }, []);
  return [size, box] as const;
}
