import "./lamp.css";

/** A lamp as it looks on the machine: lit it is filled and rayed, dark it is an empty ring. */
export function Lamp({ isLit, size = 44 }: { isLit: boolean; size?: number }) {
  const rays = [0, 45, 90, 135, 180, 225, 270, 315];
  return (
    <svg
      viewBox="-24 -24 48 48"
      width={size}
      height={size}
      aria-hidden
      className={isLit ? "lamp lit" : "lamp"}
    >
      <circle r={11} />
      {isLit &&
        rays.map((angle) => (
          <line key={angle} x1={15} x2={20} y1={0} y2={0} transform={`rotate(${angle})`} />
        ))}
    </svg>
  );
}
