import type { QuantityMap } from '@lithagon/core';
import { useDesk } from '../../state/desk';
import { webKind } from '../define';

export const map = webKind<QuantityMap>({ show: ({ id }) => useDesk.setState({ mapShows: id }) });
