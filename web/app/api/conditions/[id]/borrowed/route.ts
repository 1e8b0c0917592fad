import { borrowCalibration } from '@melto/services/calibration/borrowing';
import { bodyOf, idOf, respondOnce } from '@/server/respond';
import { services } from '@/server/services';

type Context = { params: Promise<{ id: string }> };

export async function PUT(request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  return respondOnce(request, async () =>
    borrowCalibration(services(), idOf(id), (await bodyOf(request, 'lender')).conditionId),
  );
}
