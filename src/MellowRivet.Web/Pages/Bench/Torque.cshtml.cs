using MellowRivet.Core.People;
using MellowRivet.Web.Access;
using MellowRivet.Web.Api;

namespace MellowRivet.Web.Pages.Bench;

/// <summary>What a wrench is set to, and whether a torque printed in two units agrees with itself.</summary>
[Needs(Right.Look)]
public sealed class BenchTorqueModel : BenchPage
{
    internal TorqueUnit Unit { get; private set; }
    internal TorqueAnswer? Answer { get; private set; }
    internal TorquePairAnswer? Pair { get; private set; }

    public bool IsChosen(string unit) => Unit.ToString() == unit;

    public static string Symbol(string unit) => unit switch { "FtLb" => "ft-lb", "Nm" => "N·m", _ => "in-lb" };

    public void OnGet()
    {
        Unit = Choice<TorqueUnit>("unit") ?? TorqueUnit.InLb;
        var call = new TorqueCall(Number("wanted"), Unit, Number("wrenchLengthInches"), Number("extensionInches"));
        if (!Problems.Any && call.Wanted is not null && call.WrenchLengthInches is not null)
            Answer = BenchApi.Torque(call, Problems);
        if (Typed("printed") is { } printed)
            Pair = BulletinApi.Pair(new(printed), Problems);
    }
}
