using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;
using MellowRivet.Core.People;
using MellowRivet.Web.Access;
using MellowRivet.Web.Api;

namespace MellowRivet.Web.Pages.Bench;

/// <summary>What a wrench is set to, in its own unit and in all three.</summary>
public sealed record WrenchSetting(double Setting, string Symbol, double InLb, double FtLb, double NewtonMetres);

/// <summary>A torque.</summary>
/// <param name="In">What was typed.</param>
/// <param name="Unit">The unit it is wanted in, as the open interface calls it.</param>
/// <param name="Wrench">What the wrench is set to; null where nothing was asked.</param>
/// <param name="Pair">Whether a torque that is printed in two units agrees with itself; null where none was typed.</param>
public sealed record BenchTorqueView(BenchTyped In, string Unit, WrenchSetting? Wrench, Judgement? Pair) : BenchView(In)
{
    public static string Symbol(string unit) => unit switch { "FtLb" => "ft-lb", "Nm" => "N·m", _ => "in-lb" };
}

/// <summary>What a wrench is set to, and whether a torque printed in two units agrees with itself.</summary>
[Needs(Right.Look)]
public sealed class BenchTorqueModel : BenchPage<BenchTorqueView>
{
    protected override BenchTorqueView? Answer(BenchTyped typed)
    {
        var unit = typed.Choice<TorqueUnit>("unit") ?? TorqueUnit.InLb;
        var call = new TorqueCall(typed.Number("wanted", Unit.Find(BenchTorqueView.Symbol($"{unit}"))), unit,
            typed.Number("wrenchLengthInches"), typed.Number("extensionInches"));
        var set = !typed.Problems.Any && call.Wanted is not null && call.WrenchLengthInches is not null
            && BenchApi.Torque(call, typed.Problems) is { } answer
            ? new WrenchSetting(answer.Setting, BenchTorqueView.Symbol($"{answer.Unit}"), answer.InLb, answer.FtLb, answer.NewtonMetres)
            : null;
        var pair = typed.Text("printed") is { } printed ? BulletinApi.Pair(new(printed), typed.Problems) : null;
        return new(typed, $"{unit}", set, pair?.Judgement.ToJudgement());
    }
}
