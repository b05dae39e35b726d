import type { Wavelet } from '@lithagon/core';
import { WaveletSheet } from '../../workbench/sheet/WaveletSheet';
import { webKind } from '../define';

export const wavelet = webKind<Wavelet>({ sheet: [({ object }) => <WaveletSheet wavelet={object} />] });
