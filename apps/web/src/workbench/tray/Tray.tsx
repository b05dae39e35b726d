import { ChevronLeft, Upload } from 'lucide-react';
import { useState } from 'react';
import { beginFault } from '../../actions/draw';
import { beginPicking } from '../../actions/picking/picks';
import { runRebuild } from '../../actions/steps';
import { bedOf } from '../../stages/beds';
import { useDesk } from '../../state/desk';
import { useProject } from '../../state/project';
import { offerFiles } from '../../state/selection';
import { takeTool } from '../../state/tool';
import { Button, IconButton } from '../../ui/Button';
import { chooseFiles } from '../../ui/files';
import { Members } from './Members';
import { Steps } from './Steps';
import css from './Tray.module.css';
import { WhatNext } from './WhatNext';

/** With fewer objects than this there is nothing to look for. */
const MANY = 12;

/** The objects of a bed, and the steps that make more of them, each saying what it still lacks. */
export function Tray() {
  const stage = useDesk((s) => s.stage);
  const objects = useProject((s) => s.objects);
  const old = useProject((s) => s.old);
  const [text, setText] = useState('');
  const bed = stage ? bedOf(stage) : undefined;
  if (!bed) return null;
  const held = objects.filter((o) => o.stage === bed.id);
  return (
    <aside className={css.tray} aria-label={bed.name}>
      <header>
        <h2>{bed.name}</h2>
        <IconButton label="Close the tray" onClick={() => useDesk.setState({ stage: null })}>
          <ChevronLeft size={17} />
        </IconButton>
      </header>
      <div className={css.scroll} key={bed.id}>
        <WhatNext stage={bed.id} />
        {held.some((o) => old.has(o.id)) && (
          <div className={css.offer}>
            <Button onClick={() => void runRebuild()}>Rebuild what is out of date</Button>
          </div>
        )}
        {held.length === 0 && <p className={css.summary}>{bed.summary}</p>}
        {held.length > MANY && (
          <input
            className={css.filter}
            type="search"
            aria-label={`Find in ${bed.name}`}
            placeholder="Find"
            value={text}
            onChange={(e) => setText(e.target.value)}
          />
        )}
        <Members objects={held} text={held.length > MANY ? text : ''} />
        {(bed.id === 'data' || bed.id === 'wells') && (
          <div className={css.offer}>
            <Button onClick={() => void chooseFiles().then(offerFiles)}>
              <Upload size={14} style={{ verticalAlign: -2, marginRight: 6 }} />
              Load files…
            </Button>
          </div>
        )}
        {bed.id === 'interpret' && (
          <div className={css.offer}>
            <Button onClick={() => beginPicking()}>Pick a horizon</Button>
            <Button onClick={() => beginFault()}>Draw a fault</Button>
            <Button onClick={() => takeTool({ kind: 'area', name: 'Drawn area', ring: [] })}>Draw an area</Button>
          </div>
        )}
        <Steps stage={bed.id} empty={held.length === 0 && bed.id !== 'data' && bed.id !== 'wells'} />
      </div>
    </aside>
  );
}
