import { redirect } from 'next/navigation';

export default function GaragePage() {
  redirect('/garage/car');
}
