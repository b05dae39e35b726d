// Tracking: misses, wrong times, cycle skips and tracks of nothing, and what confidence says of them.
import { median, must, row } from './score.mjs';

const part = 'horizons';
const HORIZONS = [
  ['Brack Top', 'brack-top'],
  ['Tolven Top', 'tolven-top'],
  ['Tolven Base', 'tolven-base'],
];
const CLOSE_MS = 2;
/** Half a period of 28 Hz, ms: an error beyond it is a cycle skip. */
const HALF_PERIOD_MS = 1000 / 28 / 2;
/** Confidence that is held to its word. */
const SURE = 0.9;

export function measure(work) {
  return HORIZONS.flatMap(([name, file]) => {
    const at = work.gridOf(`${name} tracked`);
    const confidence = work.gridOf(`${name} tracked`, 'confidence');
    let [events, tracked, close, skips, nothing, all, sure, sureClose, sureSkips, sureNothing] = new Array(10).fill(0);
    const seen = new Set();
    for (const { inline, crossline, event_ms } of work.truth(`${file}.csv`)) {
      const place = `${inline} ${crossline}`;
      // a reverse fault repeats a horizon: either event is one
      if (seen.has(place)) continue;
      seen.add(place);
      const t = at(inline, crossline);
      const isEvent = !Number.isNaN(event_ms);
      if (isEvent) events++;
      if (Number.isNaN(t)) continue;
      all++;
      const says = confidence(inline, crossline) >= SURE;
      if (says) sure++;
      if (!isEvent) {
        nothing++;
        if (says) sureNothing++;
        continue;
      }
      tracked++;
      const error = Math.abs(t - event_ms);
      if (error <= CLOSE_MS) {
        close++;
        if (says) sureClose++;
      }
      if (error > HALF_PERIOD_MS) {
        skips++;
        if (says) sureSkips++;
      }
    }
    const say = (measure, value, unit = 'of them') => row(part, `${name}: ${measure}`, work.seed, value, unit);
    return [
      say('traces with an event', events, ''),
      say('events tracked', tracked / events),
      say(`events within ${CLOSE_MS} ms`, close / events),
      say('cycle skips among tracked events', skips / tracked),
      say('tracked traces without an event', nothing / all),
      say(`tracked events that say ${SURE}`, sure - sureNothing, ''),
      say(`of these within ${CLOSE_MS} ms`, sureClose, ''),
      say('of these cycle skips', sureSkips, ''),
      say(`tracks without an event that say ${SURE}`, sureNothing, ''),
    ];
  });
}

export function musts(rows) {
  const of = (measure) => rows.filter((r) => r.measure.endsWith(`: ${measure}`)).map((r) => r.value);
  const sum = (values) => values.reduce((a, b) => a + b, 0);
  const events = of('traces with an event');
  const tracked = of('events tracked').map((v, n) => v * events[n]);
  const skips = of('cycle skips among tracked events').map((v, n) => v * tracked[n]);
  const sure = sum(of(`tracked events that say ${SURE}`));
  return [
    must(
      part,
      `events within ${CLOSE_MS} ms, misses counted (median over horizons)`,
      median(of(`events within ${CLOSE_MS} ms`)),
      'of them',
      'at least',
      0.9,
    ),
    must(part, 'cycle skips among all tracked events', sum(skips) / sum(tracked), 'of them', 'at most', 0.03),
    must(
      part,
      `tracked events that say ${SURE}: within ${CLOSE_MS} ms`,
      sum(of(`of these within ${CLOSE_MS} ms`)) / sure,
      'of them',
      'at least',
      0.85,
    ),
    row(
      part,
      'the same with tracks of no event counted as wrong',
      null,
      sum(of(`of these within ${CLOSE_MS} ms`)) / (sure + sum(of(`tracks without an event that say ${SURE}`))),
      'of them',
    ),
    row(part, 'worst horizon: cycle skips', null, Math.max(...of('cycle skips among tracked events')), 'of them'),
  ];
}
