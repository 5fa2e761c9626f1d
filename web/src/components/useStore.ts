export { useStore } from "zustand";
