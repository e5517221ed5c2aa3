import * as yup from 'yup';
import { mannersSchema } from '@/core/making';
import { oneOf } from '@/core/model';

const name = yup.string().max(500).required('is missing');
const slug = yup.string().max(200).required('is missing');
export const makingSchema = oneOf('from', {
  nothing: { slug, manners: mannersSchema },
  copy: { slug, name, of: slug },
  file: { slug, name, definition: yup.mixed().required('is missing') },
});

export const tablesOfSchema = yup.object({ url: yup.string().max(2000).default('') }).noUnknown();
