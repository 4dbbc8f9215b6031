using System.Collections;
using System.Reflection;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Plugs;
using MellowRivet.Core.Worksheets;

namespace MellowRivet.Store.Tests;

/// <summary>A value of any stored type with everything in it filled in, the same each time.</summary>
internal static class Full
{
    private static readonly Dictionary<Type, object> Known = new()
    {
        [typeof(string)] = "words", [typeof(bool)] = true, [typeof(int)] = 3, [typeof(long)] = 4L, [typeof(double)] = 1.5,
            [typeof(decimal)] = 2.5m,
        [typeof(Guid)] = new Guid("11111111-2222-3333-4444-555555555555"),
        [typeof(DateOnly)] = new DateOnly(2026, 11, 23), [typeof(TimeOnly)] = new TimeOnly(9, 30),
        [typeof(IReadOnlyDictionary<string, int>)] = new Dictionary<string, int> { ["words"] = 3 },
        [typeof(DateTime)] = new DateTime(2026, 11, 23, 9, 30, 0),
        [typeof(DateTimeOffset)] = new DateTimeOffset(2026, 11, 23, 9, 30, 0, TimeSpan.Zero),
        [typeof(Hours)] = new Hours(1000.5m), [typeof(Leaks)] = new Leaks([LeakPath.ExhaustValve, LeakPath.Rings]),
        [typeof(PlugHole)] = new PlugHole(2, PlugRow.Bottom), [typeof(TaskInterval)] = TaskInterval.Parse("25 h")!,
    };

    public static object Of(Type type)
    {
        type = Nullable.GetUnderlyingType(type) ?? type;
        if (Known.TryGetValue(type, out var known))
            return known;
        if (type.IsEnum)
            return Enum.GetValues(type).Cast<object>().Last();
        if (type.IsGenericType && typeof(IEnumerable).IsAssignableFrom(type) && type.GetGenericArguments() is [var item])
        {
            var list = (IList)Activator.CreateInstance(typeof(List<>).MakeGenericType(item))!;
            // Every word an enum has is written once.
            foreach (var one in item.IsEnum ? Enum.GetValues(item).Cast<object>() : [Of(item)])
                list.Add(one);
            return list;
        }
        var make = type.GetConstructors().Where(constructor => constructor.GetParameters() is not [{ } only] || only.ParameterType != type)
            .MaxBy(constructor => constructor.GetParameters().Length)
            ?? throw new InvalidOperationException($"{type} has no constructor to fill.");
        var made = make.Invoke([.. make.GetParameters().Select(parameter => Of(parameter.ParameterType))]);
        foreach (var more in type.GetProperties(BindingFlags.Public | BindingFlags.Instance)
            .Where(property => property.CanWrite
                && make.GetParameters().All(parameter => !parameter.Name!.Equals(property.Name, StringComparison.OrdinalIgnoreCase))))
            more.SetValue(made, Of(more.PropertyType));
        return made;
    }
}
