import { pathText } from '../../../picture/path';
import { useDesk } from '../../../state/desk';
import { useHere } from '../../../state/here';
import { useProject } from '../../../state/project';
import { activeOf, kindOfView, linked, titleOf } from '../../../state/views';
import { lookIn, viewIn } from '../../../state/views/index';
import { settingsIn } from '../../../state/views/view';
import { shownLine, shownVolume } from '../../common/survey';
import { cornersAlong } from '../../section/useAlong';

/** Where the sections of the desk run: the last in front heavy, those of other groups faint. */
export function Sections({ place }: { place(x: number, y: number): [number, number] }) {
  const here = useHere();
  const desk = useDesk();
  const objects = useProject((s) => s.objects);
  const front = activeOf('section');
  const open = Object.keys(desk.layout?.panels ?? { section: null }).filter((id) => kindOfView(id) === 'section');
  return (
    <g fill="none" stroke="var(--verdigris)">
      {open.map((id) => {
        const settings = settingsIn('section', viewIn(desk, id));
        const flat = shownLine(objects, settings);
        const shown = flat ?? shownVolume(objects, settings.volume ?? desk.volume, settings.domain);
        const corners = cornersAlong(shown, settings, lookIn(desk, id).place, objects);
        if (!corners) return null;
        const main = id === front;
        const other =
          main && shown?.kind === 'volume' && settings.along !== 'path'
            ? cornersAlong(
                shown,
                { ...settings, along: settings.along === 'inline' ? 'crossline' : 'inline' },
                lookIn(desk, id).place,
                objects,
              )
            : null;
        return (
          <g key={id} strokeOpacity={linked(desk, here, id) ? 1 : 0.5}>
            {other && <path d={pathText(other.map((p) => place(...p)))} strokeWidth={1} strokeDasharray="3 4" />}
            <path
              data-testid={main ? 'section-trace' : undefined}
              data-section={id}
              d={pathText(corners.map((p) => place(...p)))}
              strokeWidth={main ? 2.6 : 1.6}
            >
              <title>{titleOf(id)}</title>
            </path>
          </g>
        );
      })}
    </g>
  );
}
