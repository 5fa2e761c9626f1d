// Stores that can be watched, in part and without React; `components/useStore` is the thin hook.
export { createStore, type StoreApi as Store } from "zustand/vanilla";
