import { notifications } from '@mantine/notifications';
import { ApiError } from '../api/client';

/** Says that what was asked for was not done, and why. */
export const refused = (error: Error) =>
  notifications.show({ color: 'red', title: 'Nothing was changed', message: error instanceof ApiError ? error.whole : error.message });
