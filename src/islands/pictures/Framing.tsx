/**
 * What of a picture stays in sight: its focal point, set by a click, dragged, or moved with the arrows; each use may have a part of
 * its own, moved and made smaller by hand. What is shown beside it is what readers get.
 */
import { siteAddress } from '@/client/site-root';
import type { KeyboardEvent, PointerEvent } from 'react';
import type { PictureChoice } from '@/core/listing/editor';
import { pictureAddress } from '@/core/picture/picture-url';
import { ASPECT, boxAround, boxOf, CROPPED, type CroppedUse, nearestWidth, type Point, pixelsOf, SMALLEST } from '@/core/picture/crop';
import { type FramingState, middleOf, useFraming } from './use-framing';
import { picturesWords } from '@/words/desk';

const texts = picturesWords.framing;

const WORDS: Record<CroppedUse, [name: string, where: string]> = {
  wide: [texts.cover(), texts.pagesOfEventsHeadlines()],
  square: [texts.square(), texts.galleriesTheDesk()],
  share: [texts.card(), texts.otherSitesAndSearch()],
};
const STEP = 0.01;
const arrowOf = (event: KeyboardEvent): Point | undefined => {
  const step = event.shiftKey ? STEP * 5 : STEP;
  return { ArrowLeft: { x: -step, y: 0 }, ArrowRight: { x: step, y: 0 }, ArrowUp: { x: 0, y: -step }, ArrowDown: { x: 0, y: step } }[
    event.key
  ];
};

interface FramingProps {
  picture: PictureChoice;
  mayChange: boolean;
}

export default function Framing({ picture: start, mayChange }: FramingProps) {
  const framing = useFraming(start);
  const { picture, use } = framing;
  const whole = siteAddress(pictureAddress(start, { use: 'whole', width: nearestWidth('whole', start, 1024), format: 'webp' }));
  return (
    <section
      className="grid grid-cols-[minmax(0,1fr)_260px] gap-5.5 items-start max-[860px]:grid-cols-1"
      aria-label={texts.whatStaysInSight()}
    >
      <div>
        <div className="toggles mb-2" role="radiogroup" aria-label={texts.use()}>
          {CROPPED.map((one) => (
            <label key={one}>
              <input type="radio" name="use" checked={use === one} onChange={() => framing.setUse(one)} />
              {WORDS[one][0]}
              {picture.crops[one] ? texts.byHand() : ''}
            </label>
          ))}
        </div>
        <Frame framing={framing} src={whole} mayChange={mayChange} />
        <p className="hint m-0 mt-1.5">{texts.clickWhatMustStay()}</p>
        {mayChange && <Controls framing={framing} />}
      </div>
      <div className="grid gap-3.5">
        {CROPPED.map((one, i) => (
          <figure key={one} className={i === 1 ? '*:first:w-[55%]' : ''}>
            <Cut picture={picture} src={whole} use={one} />
            <figcaption>
              <strong>{WORDS[one][0]}</strong> <span className="quiet">{WORDS[one][1]}</span>
              <br />
              <SizeWords picture={picture} use={one} />
            </figcaption>
          </figure>
        ))}
      </div>
    </section>
  );
}

/** The whole picture with what a use shows of it, and the point that is dragged or moved with the arrows. */
function Frame({ framing, src, mayChange }: { framing: FramingState; src: string; mayChange: boolean }) {
  const { picture, use, byHand, handle } = framing;
  const box = boxOf(use, picture);
  const at = (event: PointerEvent<HTMLElement>): Point => {
    const frame = event.currentTarget.getBoundingClientRect();
    return { x: (event.clientX - frame.left) / frame.width, y: (event.clientY - frame.top) / frame.height };
  };
  const part = (n: number): string => `${(n * 100).toFixed(3)}%`;
  return (
    <div
      className="relative overflow-hidden bg-wash border border-rule-strong touch-none cursor-crosshair select-none"
      style={{
        aspectRatio: `${picture.width} / ${picture.height}`,
        width: `min(100%, ${((62 * picture.width) / picture.height).toFixed(2)}vh)`,
      }}
      onPointerDown={(event) => {
        if (!mayChange || event.button !== 0) return;
        event.currentTarget.setPointerCapture(event.pointerId);
        framing.grab();
        framing.moveTo(at(event), 'drag');
      }}
      onPointerMove={(event) => {
        if (mayChange && event.currentTarget.hasPointerCapture(event.pointerId)) framing.moveTo(at(event), 'drag');
      }}
    >
      <img
        className="absolute inset-0 w-full h-full"
        src={src}
        alt={picture.alt}
        draggable={false}
        width={picture.width}
        height={picture.height}
      />
      <div
        className="absolute outline-2 outline-solid outline-white shadow-[0_0_0_3px_rgb(0_0_0_/_.55),0_0_0_3000px_rgb(0_0_0_/_.42)] pointer-events-none"
        style={{ left: part(box.x), top: part(box.y), width: part(box.w), height: part(box.h) }}
      />
      <div
        className="framing-point absolute w-6.5 h-6.5 -mt-3.25 -ml-3.25 border-[3px] border-white rounded-full shadow-[0_0_0_2px_rgb(0_0_0_/_.7),inset_0_0_0_2px_rgb(0_0_0_/_.7)] cursor-grab focus-visible:outline-[3px] focus-visible:outline-solid focus-visible:outline-tide focus-visible:outline-offset-3"
        role="slider"
        tabIndex={mayChange ? 0 : -1}
        aria-label={byHand ? texts.middleOfThePart({ words: WORDS[use][0].toLowerCase() }) : texts.focalPoint()}
        aria-valuemin={0}
        aria-valuemax={100}
        aria-valuenow={Math.round(handle.x * 100)}
        aria-valuetext={texts.fromTheLeftFrom({ across: Math.round(handle.x * 100), down: Math.round(handle.y * 100) })}
        style={{ left: part(handle.x), top: part(handle.y) }}
        onKeyDown={(event) => {
          const step = arrowOf(event);
          if (!step || !mayChange) return;
          event.preventDefault();
          framing.moveTo({ x: handle.x + step.x, y: handle.y + step.y });
        }}
      />
    </div>
  );
}

/** A part of its own for the use, its size, saving and undoing. */
function Controls({ framing }: { framing: FramingState }) {
  const { picture, use, byHand, scale } = framing;
  return (
    <>
      <div className="row mt-2">
        <label className="check">
          <input
            type="checkbox"
            checked={byHand !== undefined}
            onChange={(e) => framing.setBox(e.target.checked ? boxOf(use, picture) : undefined)}
          />{' '}
          {texts.aPartOfIts({ words: WORDS[use][0].toLowerCase() })}
        </label>
        {byHand && (
          <label className="row">
            {texts.size()}
            <input
              type="range"
              min={SMALLEST * 100}
              max={100}
              value={Math.round(scale * 100)}
              aria-valuetext={texts.ofTheLargest({ n: Math.round(scale * 100) })}
              onChange={(e) =>
                framing.setBox(boxAround(picture, ASPECT[use], middleOf(boxOf(use, picture)), Number(e.target.value) / 100), 'size')
              }
            />
          </label>
        )}
      </div>
      <div className="row mt-2.5">
        <button type="button" className="button main" disabled={framing.same || framing.busy} onClick={() => void framing.save()}>
          {texts.saveWhatStaysIn()}
        </button>
        {framing.steps > 0 && (
          <button type="button" className="button" onClick={framing.undo}>
            {texts.undo()}
          </button>
        )}
        <span role="status" className="hint">
          {framing.said}
        </span>
      </div>
    </>
  );
}

/** What a use shows, cut from the whole picture by the same numbers as on the server. */
function Cut({ picture, src, use }: { picture: PictureChoice; src: string; use: CroppedUse }) {
  const box = boxOf(use, picture);
  return (
    <div className="relative overflow-hidden bg-wash w-full" style={{ aspectRatio: String(ASPECT[use]) }}>
      <img
        className="absolute max-w-none"
        src={src}
        alt=""
        style={{
          width: `${100 / box.w}%`,
          height: `${100 / box.h}%`,
          left: `${(-box.x / box.w) * 100}%`,
          top: `${(-box.y / box.h) * 100}%`,
        }}
      />
    </div>
  );
}

const WANTED: Record<CroppedUse, number> = { wide: 800, square: 320, share: 1200 };
function SizeWords({ picture, use }: { picture: PictureChoice; use: CroppedUse }) {
  const { width, height } = pixelsOf(use, picture);
  return (
    <span className="small">
      {width} × {height}
      {width < WANTED[use] && <span className="amber">{texts.enlargedAndBlurredWhere({ wanted: WANTED[use] })}</span>}
    </span>
  );
}
