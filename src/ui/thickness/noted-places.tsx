import { type LampWhat, lampWhatName } from "../words/coating";
import { placeWords } from "../words/places";

type Noted = { readonly face: string; readonly x: number; readonly y: number; readonly what: string };
type NotedFace = {
  readonly id: string;
  readonly name: string;
  readonly spots?: readonly { readonly id: string; readonly at: readonly [number, number] }[];
};

/** What was noted under the lamp on this coat, each with where it is: places to read or look at beside those asked for. */
export function NotedPlaces({
  noted,
  faces,
  todo,
}: {
  noted: readonly Noted[];
  faces: readonly NotedFace[];
  todo: string;
}) {
  if (noted.length === 0) return null;
  return (
    <p className="m-0 mt-2 border-watch border-l-4 pl-3">
      {todo}:{" "}
      {noted.map((place, i) => {
        const face = faces.find((f) => f.id === place.face);
        const near = [...(face?.spots ?? [])].sort(
          (a, b) => Math.hypot(a.at[0] - place.x, a.at[1] - place.y) - Math.hypot(b.at[0] - place.x, b.at[1] - place.y),
        )[0];
        return (
          <span key={`${place.face}/${place.x}/${place.y}`}>
            {i > 0 && "; "}
            <b>
              {face?.name ?? place.face}, {placeWords(place.x, place.y)}
            </b>{" "}
            ({lampWhatName[place.what as LampWhat] ?? place.what.replaceAll("-", " ")}
            {near ? `, by spot ${near.id}` : ""})
          </span>
        );
      })}
      .
    </p>
  );
}
