import { useEffect, useState } from 'react';
import { type Room, roomLeft } from '../../storage/room';
import { Button } from '../../ui/Button';
import { formatBytes } from '../../ui/format';
import css from './Catalogue.module.css';

/** What the project takes up, and what the browser allows. */
export function StorageLine({ bytes }: { bytes: number }) {
  const [room, setRoom] = useState<Room | null>(null);
  useEffect(() => {
    let wanted = true;
    void roomLeft().then((r) => wanted && setRoom(r));
    return () => {
      wanted = false;
    };
  }, []);
  if (!room) return null;
  return (
    <footer className={css.storage}>
      <span>This project: {formatBytes(bytes)}.</span>
      <meter min={0} max={room.quota} value={room.used} aria-label="Storage used" />
      <span>
        All projects use {formatBytes(room.used)} of the {formatBytes(room.quota)} that the browser allows.
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
