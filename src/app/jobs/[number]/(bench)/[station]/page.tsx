/** The station itself is drawn by the job's layout, which stays while one moves between stations. */
export default function StationPage() {
  return null;
}
