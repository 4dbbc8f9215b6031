using System.Collections.Concurrent;
using MellowRivet.Core.Bulletins;

namespace MellowRivet.Core.Fleet;

/// <summary>A name on file or in a bulletin that the type list doesn't know.</summary>
/// <param name="Kind">What it names.</param>
/// <param name="Name">The name as it stands.</param>
/// <param name="Near">Types it may mean, the closest first.</param>
/// <param name="On">What bears it, in words: "N04QF", "N0TWQ propeller left", "AD 2026-21-04".</param>
public sealed record UnsettledName(TypeKind Kind, string Name, IReadOnlyList<KnownType> Near, IReadOnlyList<string> On);

/// <summary>
/// The types a shop knows: what a name means, and what it may mean. The list is what it was when it was loaded; it is only read.
/// </summary>
public sealed class TypeList
{
    private readonly Dictionary<(TypeKind Kind, string Key), List<KnownType>> byName = [];
    private readonly ILookup<TypeKind, (KnownType Type, ModelName[] Names)> byKind;
    private readonly ConcurrentDictionary<(TypeKind Kind, string Name), NamedType> found = [];

    public TypeList(IEnumerable<KnownType> types)
    {
        All = [.. types.OrderBy(type => type.Kind).ThenBy(type => type.FullName, StringComparer.OrdinalIgnoreCase)];
        var named = All.Select(type => (Type: type, Names: type.Names.Select(name => new ModelName(name)).ToArray())).ToList();
        byKind = named.ToLookup(one => one.Type.Kind);
        foreach (var (type, names) in named)
            foreach (var key in names.Select(name => name.Key).Distinct())
                if (byName.TryGetValue((type.Kind, key), out var there))
                    there.Add(type);
                else
                    byName[(type.Kind, key)] = [type];
    }

    public static readonly TypeList Empty = new([]);

    public IReadOnlyList<KnownType> All { get; }

    public IEnumerable<KnownType> Of(TypeKind kind) => byKind[kind].Select(one => one.Type);

    /// <summary>What a name means. A name of two makers' models is near both and means neither.</summary>
    public NamedType Find(TypeKind kind, string name) => found.GetOrAdd((kind, name), asked =>
    {
        var model = new ModelName(asked.Name);
        if (byName.TryGetValue((asked.Kind, model.Key), out var same))
            return same is [var only] ? new(only, []) : new(null, same);
        return new(null, [.. byKind[asked.Kind].Where(one => one.Names.Any(known => known.Compare(model) == NameMatch.Near))
            .Select(one => one.Type)]);
    });

    /// <summary>
    /// Whether a model on file is one that a rule names. A name on file that no list knows can't be told from any; a name in the
    /// rule that no list knows can't be told from the types it is near to.
    /// </summary>
    public RuleAnswer Match(TypeKind kind, string onFile, IReadOnlyList<string> named)
    {
        var here = Find(kind, onFile);
        var answer = here.IsKnown ? RuleAnswer.DoesNotApply : RuleAnswer.CannotTell;
        foreach (var name in named)
        {
            var asked = Find(kind, name);
            if (here.Type is { } type ? asked.Type == type : ModelName.Compare(name, onFile) == NameMatch.Same)
                return RuleAnswer.Applies;
            if (here.Type is { } known && asked.Near.Contains(known))
                answer = RuleAnswer.CannotTell;
        }
        return answer;
    }

    /// <summary>Models that a bulletin names and no list knows.</summary>
    public IEnumerable<UnsettledName> UnsettledIn(Bulletin bulletin) => UnsettledIn(bulletin.AppliesTo, bulletin.Title);

    /// <summary>Models that a rule names and no list knows, with where it stands.</summary>
    public IEnumerable<UnsettledName> UnsettledIn(Rule rule, string where) => NamedIn(rule)
        .Select(named => (named.Kind, named.Name, Found: Find(named.Kind, named.Name))).Where(named => !named.Found.IsKnown)
        .Select(named => new UnsettledName(named.Kind, named.Name, named.Found.Near, [where]));

    /// <summary>The models that a rule names, by kind.</summary>
    public static IEnumerable<(TypeKind Kind, string Name)> NamedIn(Rule rule) => rule.Conditions
        .Where(condition => condition.Test is IsOneOf)
        .SelectMany(condition => FactName.Read(condition.Fact) is { Asks: "model", TypeKind: { } kind }
            ? ((IsOneOf)condition.Test).Words.Select(word => (kind, word))
            : [])
        .Distinct();

    /// <summary>
    /// The list that a shop from before begins with: the models that its bulletins name, those that most name first, and the
    /// names on its files. What is near to one that is there stays off the list and is asked about, whichever side mistyped it.
    /// </summary>
    /// <param name="files">Names on the shop's files.</param>
    /// <param name="bulletins">The bulletins it holds.</param>
    public static IReadOnlyList<KnownType> FirstOf(IEnumerable<(TypeKind Kind, string Name)> files, IEnumerable<Bulletin> bulletins)
    {
        var named = bulletins.SelectMany(bulletin => NamedIn(bulletin.AppliesTo).Select(model => (Model: model, bulletin)))
            .ToLookup(pair => pair.Model, pair => pair.bulletin);
        List<KnownType> made = [];
        foreach (var (kind, name) in named.OrderByDescending(group => group.Count()).Select(group => group.Key)
            .Concat(files.GroupBy(file => file).OrderByDescending(group => group.Count()).Select(group => group.Key)))
        {
            if (new ModelName(name).Key.Length == 0 || new TypeList(made).Find(kind, name) is not { Type: null, Near.Count: 0 })
                continue;
            // Of an aircraft's name the first word is its maker's, until somebody says better; of a part who sent its
            // bulletins, unless that is the authority.
            var words = name.Trim().Split(' ', 2, StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);
            var issuer = named[(kind, name)]
                .FirstOrDefault(bulletin => bulletin.Kind is not BulletinKind.AirworthinessDirective)?.Issuer ?? "";
            made.Add(kind == TypeKind.Aircraft
                ? new(Guid.CreateVersion7(), kind, words.Length == 2 ? words[0] : "", words[^1])
                : new(Guid.CreateVersion7(), kind, issuer, name));
        }
        return made;
    }
}
