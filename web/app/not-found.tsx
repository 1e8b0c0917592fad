import { Link } from '@/ui/Link';

export default function NotFound() {
  return (
    <div className="floor" style={{ padding: 32 }}>
      <p style={{ fontSize: 20 }}>This address leads nowhere.</p>
      <p>
        <Link href="/">Back to the floor</Link>
      </p>
    </div>
  );
}
