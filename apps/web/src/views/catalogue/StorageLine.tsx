import { heldBytes } from '@lithagon/core';
import { useEffect, useState } from 'react';
import { useProject } from '../../state/project';
import { keysHere } from '../../storage/idbStore';
import { type Room, roomLeft } from '../../storage/room';
import { Button } from '../../ui/Button';
import { formatBytes } from '../../ui/format';
import css from './Catalogue.module.css';

/** What the project takes up, and what the browser allows. */
export function StorageLine({ bytes }: { bytes: number }) {
  const [room, setRoom] = useState<Room | null>(null);
  const [here, setHere] = useState(bytes);
  const projectId = useProject((s) => s.id);
  const objects = useProject((s) => s.objects);
  useEffect(() => {
    let wanted = true;
    void roomLeft().then((r) => wanted && setRoom(r));
    // a project that a server shows is fetched as it is looked at
    void keysHere(projectId).then((keys) => wanted && setHere(heldBytes(objects, keys)));
    return () => {
      wanted = false;
    };
  }, [projectId, objects]);
  if (!room) return null;
  return (
    <footer className={css.storage}>
      <span>
        This project: {formatBytes(bytes)}
        {here < 0.99 * bytes
          ? `, of which ${formatBytes(here)} are here; the rest is fetched when it is looked at`
          : ''}
        .
      </span>
      <meter min={0} max={room.quota} value={room.used} aria-label="Storage used" />
      <span>
        In this browser all projects use {formatBytes(room.used)} of the {formatBytes(room.quota)} that it allows.
      </span>
      {room.persisted ? (
        <span>It keeps them until you delete them.</span>
      ) : (
        <>
          <span>It may clear them when the disk is full.</span>
          <Button small onClick={() => void navigator.storage.persist().then(roomLeft).then(setRoom)}>
            Ask it to keep them
          </Button>
        </>
      )}
    </footer>
  );
}
