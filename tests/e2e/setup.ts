/** Before all journeys: one folder of the demo, which each file's site is a copy of. */
import { prepare } from './site';

export default prepare;
