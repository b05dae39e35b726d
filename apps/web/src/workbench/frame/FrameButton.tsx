import {
  asLithagonError,
  type Crs,
  crsOf,
  type Frame,
  frameFor,
  isGeographic,
  mapBetween,
  placeOf,
  reframed,
  relabelBetween,
} from '@lithagon/core';
import { useState } from 'react';
import { toast } from 'sonner';
import { edit } from '../../state/history';
import { refreshProject, useProject } from '../../state/project';
import { useSelection } from '../../state/selection';
import { crsTable } from '../../storage/crsTable';
import { Modal } from '../../ui/Modal';
import css from './Frame.module.css';
import { FrameFields } from './FrameFields';
import { FrameSearch } from './FrameSearch';
import { Reframe } from './Reframe';

/** The project's frame in a word, and the sheet in which it is chosen and changed. */
export function FrameButton() {
  const facts = useProject((s) => s.facts);
  const objects = useProject((s) => s.objects);
  const open = useSelection((s) => s.frameOpen);
  const setOpen = (frameOpen: boolean) => useSelection.setState({ frameOpen });
  const [chosen, setChosen] = useState<Crs | null>(null);
  const frame = facts?.frame ?? null;
  const close = () => {
    setOpen(false);
    setChosen(null);
  };
  const choose = (crs: Crs) => {
    if (isGeographic(crs)) return toast.error(`${crs.name} is in degrees. Choose a projected system of the area.`);
    if (!frame || objects.length === 0) return void take(crs, false);
    if (`EPSG:${crs.code}` !== frame.crs) setChosen(crs);
  };
  /** Put the project in a system: coordinates stay as they are, or move with it. */
  const take = async (crs: Crs, convert: boolean) => {
    try {
      // only the system changes; the rest of the frame was said for the project
      const { crs: code, crsName, unit } = frameFor(crs);
      const next: Frame = { ...(frame ?? frameFor(crs)), crs: code, crsName, unit };
      const from = frame ? await crsOf(frame.crs, crsTable) : null;
      const toMap = from && (convert ? mapBetween(from, crs, placeOf(objects)).toMap : relabelBetween(from, crs));
      const moved = toMap ? reframed(objects, toMap, next) : [];
      const before = moved.map((o) => objects.find((b) => b.id === o.id)).filter((o) => o !== undefined);
      if (frame)
        await edit(`${convert ? 'Convert' : 'Relabel'} to ${crs.name}`, before, moved, { before: frame, after: next });
      else await useProject.getState().store?.commit({ facts: { frame: next } });
      await refreshProject();
      close();
      toast(convert ? `Converted: ${moved.length} objects moved.` : `The project is in ${crs.name}.`);
    } catch (cause) {
      toast.error(asLithagonError(cause).sentence);
    }
  };
  return (
    <>
      <button type="button" className={css.frame} onClick={() => setOpen(true)}>
        {frame ? frame.crs : 'Choose coordinate system'}
      </button>
      <Modal
        open={open}
        title="Frame of the project"
        summary={
          frame
            ? `${frame.crsName}, ${{ m: 'metres', ft: 'feet', 'us-ft': 'US survey feet' }[frame.unit]}. Positions of all objects are in it.`
            : 'Type part of its name, its EPSG code, or the area it is for.'
        }
        onClose={close}
      >
        <div className={css.body}>
          {chosen && frame ? (
            <Reframe
              frame={frame}
              to={chosen}
              onTake={(convert) => void take(chosen, convert)}
              onBack={() => setChosen(null)}
            />
          ) : (
            <>
              {frame && <FrameFields frame={frame} />}
              <FrameSearch now={frame?.crs} onChoose={choose} />
            </>
          )}
        </div>
      </Modal>
    </>
  );
}
