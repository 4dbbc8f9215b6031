using MellowRivet.Core.Fleet;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Plugs;

namespace MellowRivet.Devices.Practice;

/// <summary>What an exercise has to measure with: the instruments that are there.</summary>
/// <param name="Layout">The engine, drawn; null where the exercise has none.</param>
/// <param name="Tester">The compression tester; null where there is none.</param>
/// <param name="Plugs">The plug tester, with the holes whose plugs lie there.</param>
/// <param name="Scale">The scale, with the pairs of floats beside it.</param>
/// <param name="Tensiometer">The tensiometer, with its cables.</param>
public sealed record PracticeSet(
    EngineLayout? Layout = null, ICompressionTester? Tester = null,
    (IPlugTester Tester, IReadOnlyList<PlugHole> Holes)? Plugs = null,
    (IFloatScale Scale, IReadOnlyList<(string One, string Other)> Pairs)? Scale = null,
    (ICableTensiometer Meter, IReadOnlyList<string> Cables)? Tensiometer = null);

/// <summary>A reading that was taken.</summary>
/// <param name="Token">What was asked for, as the address carries it.</param>
/// <param name="Words">What the instrument showed.</param>
/// <param name="Value">The number, where a needle shows it; null otherwise.</param>
/// <param name="Caution">What the hand should have minded; null for nothing.</param>
public sealed record TakenReading(string Token, string Words, double? Value = null, string? Caution = null);

/// <summary>An answer a person can give.</summary>
public sealed record PracticeAnswer(string Key, string Words);

/// <summary>What is said to an answer.</summary>
/// <param name="IsRight">The rules agree.</param>
/// <param name="Judgement">What Core's own rules say of the truth.</param>
/// <param name="Lesson">Why, and what it teaches.</param>
/// <param name="Missed">Readings that a careful hand takes first and that were not taken; empty for none.</param>
public sealed record PracticeSaid(bool IsRight, Judgement Judgement, string Lesson, IReadOnlyList<string> Missed);

/// <summary>Something to practise on: take the readings, say the verdict, be told what the rules say and why.</summary>
/// <param name="Key">Its name in the address.</param>
/// <param name="Title">What is shown.</param>
/// <param name="Story">What a person is told.</param>
/// <param name="Question">What is asked.</param>
/// <param name="Instruments">The instruments, with what is hidden.</param>
/// <param name="Answers">The answers to choose from.</param>
/// <param name="Right">The key of the right one.</param>
/// <param name="Judge">What Core's rules say of the truth.</param>
/// <param name="Lesson">Why, and what it teaches.</param>
/// <param name="Wanted">Readings that the right answer needs: each a beginning of a token, with its words.</param>
public sealed record Exercise(
    string Key, string Title, string Story, string Question, PracticeSet Instruments, IReadOnlyList<PracticeAnswer> Answers, string Right,
    Func<Judgement> Judge, string Lesson, IReadOnlyList<(string Token, string Words)> Wanted)
{
    /// <summary>What is said to an answer, seen with what was taken before it.</summary>
    public PracticeSaid Say(string answer, IReadOnlyList<TakenReading> taken) => new(answer == Right, Judge(), Lesson,
        [.. Wanted.Where(wanted => taken.All(reading => !reading.Token.StartsWith(wanted.Token, StringComparison.Ordinal)))
            .Select(wanted => wanted.Words)]);
}
