import { domainUnit, drawn, type Fault, newDrawn, type Picks } from '@lithagon/core';
import { scaleLinear } from 'd3-scale';
import { toast } from 'sonner';
import { useClosing } from '../../state/closing';
import { useDesk } from '../../state/desk';
import { edit } from '../../state/history';
import { useProject } from '../../state/project';
import { type Tool, takeTool } from '../../state/tool';
import { useUnits } from '../../state/units';
import { activeOf, changeSettings, goTo, settingsOf } from '../../state/views';
import { Button } from '../../ui/Button';
import { Field } from '../../ui/Field';
import { placeOver, shownVolume } from '../../views/common/survey';
import css from './Sheet.module.css';

type CloseTool = Extract<Tool, { kind: 'close' }>;

const [WIDTH, HEIGHT, LEFT, BASE] = [224, 120, 30, 22];
/** Peaks that are offered. */
const OFFERED = 3;

/** The match of the two sides against throw, with its peaks: a click sets the throw. */
function MatchPlot({ tool, unit }: { tool: CloseTool; unit: string }) {
  const closing = useClosing((s) => s.closing);
  if (!closing) return null;
  const { throws, match, peaks } = closing;
  const x = scaleLinear([throws[0], throws[throws.length - 1]], [LEFT, WIDTH - 14]);
  const y = scaleLinear([-1, 1], [HEIGHT - BASE, 8]);
  let path = '';
  match.forEach((m, n) => {
    if (Number.isNaN(m)) return;
    path += `${path === '' || Number.isNaN(match[n - 1]) ? 'M' : 'L'}${x(throws[n]).toFixed(1)} ${y(m).toFixed(1)}`;
  });
  const step = throws[1] - throws[0];
  return (
    <>
      <svg
        width={WIDTH}
        height={HEIGHT}
        role="img"
        aria-label={`Match of the two sides against throw; best at ${peaks[0] ?? 'none'} ${unit}`}
        className={css.matchPlot}
        onPointerDown={(event) => {
          const at = x.invert(event.clientX - event.currentTarget.getBoundingClientRect().left);
          takeTool({ ...tool, throw: Math.round(at / step) * step });
        }}
      >
        <path d={`M${LEFT} ${y(0)}H${WIDTH - 6}M${x(0)} 8V${HEIGHT - BASE}`} className={css.matchAxis} />
        <path d={path} className={css.matchLine} />
        {peaks.slice(0, OFFERED).map((p) => (
          <circle key={p} cx={x(p)} cy={y(match[throws.indexOf(p)])} r={3} className={css.matchPeak} />
        ))}
        <path d={`M${x(tool.throw)} 8V${HEIGHT - BASE}`} className={css.matchTrial} />
        {[-1, 0, 1].map((v) => (
          <text key={v} x={LEFT - 4} y={y(v) + 4} textAnchor="end">
            {v}
          </text>
        ))}
        {x.ticks(4).map((v) => (
          <text key={v} x={x(v)} y={HEIGHT - 9} textAnchor="middle">
            {v}
          </text>
        ))}
        <text x={WIDTH - 6} y={HEIGHT} textAnchor="end">
          throw ({unit})
        </text>
      </svg>
      <p className={css.peaks}>
        {peaks.length === 0 && 'Nowhere do the two sides match here: another level or height may help.'}
        {peaks.slice(0, OFFERED).map((p) => (
          <Button key={p} onClick={() => takeTool({ ...tool, throw: p })}>
            {p} {unit} · {match[throws.indexOf(p)].toFixed(2)}
          </Button>
        ))}
      </p>
    </>
  );
}

/** Show a line through the middle of a fault. */
function goToFault({ sticks, domain }: Fault): void {
  const section = activeOf('section');
  const settings = settingsOf('section', section);
  const volume = shownVolume(useProject.getState().objects, settings.volume ?? useDesk.getState().volume, domain);
  const stick = sticks[sticks.length >> 1];
  const middle = stick?.[stick.length >> 1];
  if (!volume || !middle) return;
  const along = settings.along === 'path' ? 'inline' : settings.along;
  changeSettings('section', section, { line: null, along, domain });
  goTo(section, placeOver(volume, middle[0], middle[1]));
}

/** A fault closed on the section by a trial throw: how far, where it is compared, and over what height. */
export function CloseFields({ tool }: { tool: CloseTool }) {
  const closing = useClosing((s) => s.closing);
  const fault = useProject((s) => s.byId.get(tool.fault) as Fault | undefined);
  const units = useUnits();
  if (!fault) return <p className={css.note}>The fault is gone.</p>;
  const unit = units.of(domainUnit(fault.domain));
  if (!closing)
    return (
      <>
        <p className={css.note}>{fault.name} is not on the section, or only just.</p>
        <Button onClick={() => goToFault(fault)}>Go to a line that it crosses</Button>
      </>
    );
  const most = closing.throws[closing.throws.length - 1];
  const step = closing.throws[1] - closing.throws[0];
  const middle = tool.at ?? Math.round((closing.from + closing.to) / 2 / step) * step;
  const slider = (label: string, value: number, range: [number, number, number], set: (value: number) => void) => (
    <Field label={`${label}: ${value.toFixed(0)} ${unit}`}>
      {(field) => (
        <input
          id={field}
          type="range"
          className={css.slide}
          aria-label={label}
          min={range[0]}
          max={range[1]}
          step={range[2]}
          value={value}
          onChange={(e) => set(Number(e.target.value))}
        />
      )}
    </Field>
  );
  return (
    <>
      <p className={css.note}>{fault.name}. The hanging wall is put back by the throw, in the section alone.</p>
      {slider('Throw', tool.throw, [-most, most, step], (value) => takeTool({ ...tool, throw: value }))}
      <MatchPlot tool={tool} unit={unit} />
      {slider('Compared about', middle, [closing.from, closing.to, step], (at) => takeTool({ ...tool, at }))}
      {slider('Over a height of', tool.height, [8 * step, 100 * step, step], (height) => takeTool({ ...tool, height }))}
    </>
  );
}

/** The throw is taken: the two ends of the bed become picks. */
export function CloseDone({ tool }: { tool: CloseTool }) {
  const pair = useClosing((s) => s.closing?.pair ?? null);
  const { objects } = useProject.getState();
  const fault = useProject((s) => s.byId.get(tool.fault) as Fault | undefined);
  if (!fault) return null;
  const name = `Pairs across ${fault.name}`;
  const take = async () => {
    if (!pair) return;
    const before = objects.find((o): o is Picks => o.kind === 'picks' && o.name === name);
    const after = before
      ? drawn<Picks>({ ...before, points: [...before.points, ...pair] })
      : newDrawn<Picks>({ kind: 'picks', name, domain: fault.domain, event: 'free-hand', points: pair, erased: [] });
    await edit(`Pick a pair across ${fault.name}, throw ${tool.throw}`, before ? [before] : [], [after]);
    toast(`The pair is kept in ${name}.`);
  };
  return (
    <Button
      main
      disabled={!pair}
      title={pair ? undefined : 'The fault is not at both ends of the bed here'}
      onClick={() => void take()}
    >
      Take the throw
    </Button>
  );
}
