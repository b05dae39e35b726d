import type { Volume } from '@lithagon/core';
import { store } from '../../actions/steps';
import { showVolume } from '../../actions/volumes';
import { Button } from '../../ui/Button';
import { DisplayForm } from '../../views/common/DisplayForm';
import { Redeclare } from '../../workbench/sheet/ObjectEdits';
import { PlaceVolume } from '../../workbench/sheet/PlaceVolume';
import { StackSet } from '../../workbench/sheet/StackSet';
import { TextHeader } from '../../workbench/sheet/TextHeader';
import { webKind } from '../define';

function Place({ object }: { object: Volume }) {
  return object.binGrid.local ? <PlaceVolume key={`place ${object.id}`} volume={object} /> : null;
}

function StoreIt({ object }: { object: Volume }) {
  if (object.layouts) return null;
  return (
    <Button title="Keep its samples, so that they need not be worked out again" onClick={() => void store(object)}>
      Store
    </Button>
  );
}

export const volume = webKind<Volume>({
  sheet: [({ object }) => <DisplayForm volume={object} />, StackSet, Redeclare, Place, TextHeader],
  actions: [StoreIt],
  show(object) {
    showVolume(object);
  },
});
