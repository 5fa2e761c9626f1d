import { useBenchKeys } from "../../components/screen/useBenchKeys";

/** The key that says the rest of a map, heard while the map is there. */
export function useRestOfMap(rest: () => void): void {
  useBenchKeys((key) => {
    if (key !== "rest-of-map") return false;
    rest();
    return true;
  });
}
