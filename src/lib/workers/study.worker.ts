import { expose } from 'comlink';
import { StudyService } from '../workspace/study-service';

expose(new StudyService());
