import { createContext, useContext } from 'react';

/** Which view of the desk a component stands in. */
const Here = createContext('section');
export const HereProvider = Here.Provider;
export const useHere = () => useContext(Here);
