using MellowRivet.Core.People;
using MellowRivet.Web.Access;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace MellowRivet.Web.Pages.Device;

/// <summary>What lies on the device that asks: what was taken along, and what waits to be sent. The shop knows nothing of it.</summary>
[Needs(Right.RecordWork)]
public sealed class DeviceModel : PageModel;
