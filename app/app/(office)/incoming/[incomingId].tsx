import { place } from '../../../places';

export default place('IncomingPlace');
